import { type BuildDocument, FORMAT_VERSION, type Target } from '../document';
import { type ShopSnapshot, shopAlone } from '../kit';

/** One piece of which nothing is asked yet, measured on what a step gives. */
const wanted = (purpose: string): Target => ({
  id: 'piece',
  purpose,
  quantity: 1,
  output: 'piece-out',
  length: { aim: 'free' },
  width: { aim: 'free' },
  thickness: { aim: 'free' },
});

/** A job with no pattern at all: one piece wanted, of any size, and no step. Whatever is done a hand puts in. */
export const freeJob = (shop: ShopSnapshot, { name, use }: { name: string; use: string }): BuildDocument => ({
  format: 'junta-build',
  version: FORMAT_VERSION,
  name,
  use,
  targets: [wanted(use)],
  boards: [],
  assemblies: [],
  steps: [],
  readings: [],
  shop: shopAlone(shop),
});

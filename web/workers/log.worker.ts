import { expose } from 'comlink';
import type { ShopSnapshot } from '../../core/kit';
import { type DatedRow, learn, type Learnt } from '../../core/log';

const worker = {
  /** What the shop really loses, out of the rows of its log. */
  learn: (rows: DatedRow[], shop: ShopSnapshot, now: number): Learnt => learn(rows, shop, now),
};
export type LogWorker = typeof worker;
expose(worker);

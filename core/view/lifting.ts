import { gluingOf, type ShopSnapshot } from '../kit';
import { peopleFor } from '../steps';

/** More people than this find no place around a piece. */
const MOST = 8;

/** Who lifts a piece by hand and how, in words: by what one pair of hands of this shop lifts. */
export function liftWords(massKg: number, shop: ShopSnapshot): { words: string; over: boolean } {
  const { liftKg, hands } = gluingOf(shop);
  const people = peopleFor(massKg, liftKg, { carried: 'flat', stairs: false, most: MOST });
  if (people === undefined) return { words: 'nobody by hand: a trolley or a hoist', over: true };
  if (people === 1) return { words: 'one person', over: false };
  return people > hands
    ? { words: `${people} people, and the shop has ${hands}: ask for help, or use a trolley`, over: true }
    : { words: `${people} people together, one at each end`, over: false };
}

import { rising } from '../../units';
import type { BuildDocument, LaidPart } from '../../document';
import type { Timeline, WorkPiece } from '../../steps';
import type { StripLook } from '../faces';
import { stripLook, stripsOf } from '../joints';
import { exactOrders, type Lock, MOST_EXACT, pairedOrders } from './exact';
import { better, boundOf, greedyOrder } from './search';
import { costOf, costsOf, type Order, type Purpose, scoresOf, type Term, WAYS } from './terms';

/** One answer: the order, what it costs, and what each term comes to. */
export interface Proposal {
  order: Order;
  cost: number;
  scores: (Term & { sum: number })[];
  /** Parts as the glue-up takes them. */
  parts: LaidPart[];
}

/** Answers to a purpose, the best first. */
export interface Proposals {
  purpose: Purpose;
  answers: Proposal[];
  /** What the lay-up costs as it is. */
  now: number;
  /** The first answer is proven best. */
  proven: boolean;
  /** No order costs less than this. */
  bound: number;
}

/** A lay-up that can be put in another order. */
export interface LayUp {
  looks: StripLook[];
  locks: Lock[];
  now: Order;
}

/** Most strips an order is proposed for. */
export const MOST_PROPOSED = 80;

const ANSWERS = 3;

/** How often the best order is shaken in each turn. */
const SHAKES = 60;

/** Reads a lay-up of strips; undefined for a step that lays up none, or too many. */
export function layUpOf(build: BuildDocument, timeline: Timeline, stepId: string): LayUp | undefined {
  const found = stripsOf(build, timeline, stepId);
  if (!found || found.laid.length > MOST_PROPOSED) return undefined;
  const looks = found.laid.map(({ piece }) =>
    stripLook(build, found.works.get(piece) as WorkPiece, found.slots.get(piece)),
  );
  const wayOf = (part: { endForEnd: boolean; rollOver: boolean }) =>
    WAYS.findIndex((way) => way.endForEnd === part.endForEnd && way.rollOver === part.rollOver);
  const now: Order = { strips: looks.map((_, i) => i), ways: found.laid.map(wayOf) };
  const locks = found.laid.flatMap((part, place) =>
    part.locked ? [{ place, strip: place, way: now.ways[place] }] : [],
  );
  return { looks, locks, now };
}

/** The same lay-up, or the same seen from the other side of the bench: turned about as a whole. */
function sameOrder(a: Order, b: Order): boolean {
  const n = a.strips.length;
  const alike = (at: (i: number) => number, turned: 0 | 1) =>
    a.strips.every((strip, i) => strip === b.strips[at(i)] && a.ways[i] === (b.ways[at(i)] ^ turned));
  return alike((i) => i, 0) || alike((i) => n - 1 - i, 1);
}

/**
 * Proposes orders for a purpose. Yields a first answer at once and better ones as they are found; the last is proven
 * best up to MOST_EXACT strips. The same lay-up always gives the same answers.
 */
export function* propose(layUp: LayUp, purpose: Purpose): Generator<Proposals, Proposals> {
  const { looks, locks, now } = layUp;
  const costs = costsOf(purpose, looks);
  const bound = boundOf(costs);
  const tell = (orders: readonly Order[], proven: boolean): Proposals => {
    const seen: Order[] = [];
    for (const order of [...orders].sort(rising((a) => costOf(costs, a))))
      if (seen.length < ANSWERS && !seen.some((other) => sameOrder(other, order))) seen.push(order);
    return {
      purpose,
      answers: seen.map((order) => proposal(layUp, purpose, order, costOf(costs, order))),
      now: costOf(costs, now),
      proven,
      bound: proven ? costOf(costs, seen[0]) : bound,
    };
  };
  const first = greedyOrder(costs, locks);
  if (looks.length <= MOST_EXACT) {
    yield tell([first], false);
    const exact = costs.hasPairs ? pairedOrders(costs, locks) : exactOrders(costs, locks);
    return tell(exact, true);
  }
  let orders = [first];
  yield tell(orders, false);
  const turns = 4;
  for (let turn = 1; turn <= turns; turn++) {
    const start = turn % 2 ? orders[0] : greedyOrder(costs, locks, turn);
    orders = [...orders, better(costs, locks, start, { turn, shakes: SHAKES })].sort(
      rising((a) => costOf(costs, a)),
    );
    yield tell(orders, false);
  }
  return tell(orders, costOf(costs, orders[0]) <= bound + 1e-9);
}

function proposal({ looks, locks }: LayUp, purpose: Purpose, order: Order, cost: number): Proposal {
  const locked = new Set(locks.map(({ strip }) => strip));
  return {
    order,
    cost,
    scores: scoresOf(purpose, looks, order),
    parts: order.strips.map((strip, p): LaidPart => {
      const way = WAYS[order.ways[p]];
      return {
        piece: looks[strip].piece,
        ...(way.endForEnd ? { endForEnd: true } : {}),
        ...(way.rollOver ? { rollOver: true } : {}),
        ...(locked.has(strip) ? { locked: true } : {}),
      };
    }),
  };
}

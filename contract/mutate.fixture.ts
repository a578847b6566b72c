/** A stream of numbers from 0 to 1 (mulberry32): one seed, one stream. */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let t = state;
    t = Math.imul(t ^ (t >>> 15), t | 1);
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61);
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

type Random = () => number;
type Holder = Record<string, unknown> | unknown[];
interface Place {
  holder: Holder;
  key: string | number;
}

const pick = <T>(random: Random, list: readonly T[]): T => list[Math.floor(random() * list.length)];

function placesIn(root: Holder): Place[] {
  const places: Place[] = [];
  const open: Holder[] = [root];
  for (let holder = open.pop(); holder; holder = open.pop())
    for (const key of Array.isArray(holder) ? holder.keys() : Object.keys(holder)) {
      places.push({ holder, key });
      const value = (holder as Record<string | number, unknown>)[key];
      if (typeof value === 'object' && value !== null) open.push(value as Holder);
    }
  return places;
}

const nested = (levels: number): unknown => {
  let value: unknown = 1;
  for (let i = 0; i < levels; i++) value = i % 2 ? [value] : { in: value };
  return value;
};

const ODD: readonly ((random: Random) => unknown)[] = [
  () => null,
  () => true,
  () => '',
  () => -1,
  () => 0,
  () => 0.5,
  () => 1e-6,
  () => 1e-4,
  () => 0.01,
  () => 100_000,
  () => 1e308,
  () => 2 ** 31,
  () => 2 ** 53,
  () => [],
  () => ({}),
  () => 'x'.repeat(41),
  () => '<b>&"\u0000\ud800',
  () => '__proto__',
  (random) => nested(3 + Math.floor(random() * 60)),
  (random) => Array.from({ length: Math.floor(random() * 3000) }, () => 1),
  (random) => Math.floor(random() * 2000),
  (random) => (random() - 0.5) * 10 ** Math.floor(random() * 10 - 4),
];

/** What can happen to one place of a document. */
const MUTATIONS: readonly ((places: Place[], random: Random) => void)[] = [
  (places, random) => {
    const { holder, key } = pick(random, places);
    if (Array.isArray(holder)) holder.splice(Number(key), 1);
    else delete holder[key as string];
  },
  (places, random) => {
    const { holder, key } = pick(random, places);
    (holder as Record<string | number, unknown>)[key] = pick(random, ODD)(random);
  },
  // A number moved by some powers of ten, or to a neighbour: the values that still look right.
  (places, random) => {
    const numbers = places.filter(
      ({ holder, key }) => typeof (holder as Record<string | number, unknown>)[key] === 'number',
    );
    if (numbers.length === 0) return;
    const { holder, key } = pick(random, numbers);
    const at = holder as Record<string | number, number>;
    at[key] = random() < 0.3 ? at[key] + 1 : at[key] * 10 ** Math.floor(random() * 12 - 7);
  },
  // A value taken from another place of the same type: references that cross.
  (places, random) => {
    const typeAt = ({ holder, key }: Place) => typeof (holder as Record<string | number, unknown>)[key];
    const to = pick(random, places);
    const from = pick(
      random,
      places.filter((place) => typeAt(place) === typeAt(to)),
    );
    (to.holder as Record<string | number, unknown>)[to.key] = structuredClone(
      (from.holder as Record<string | number, unknown>)[from.key],
    );
  },
  // An entry of a list twice, or moved.
  (places, random) => {
    const lists = places
      .map(({ holder, key }) => (holder as Record<string | number, unknown>)[key])
      .filter((value): value is unknown[] => Array.isArray(value) && value.length > 0);
    if (lists.length === 0) return;
    const list = pick(random, lists);
    const [entry] =
      random() < 0.5 ? list.splice(Math.floor(random() * list.length), 1) : [pick(random, list)];
    list.splice(Math.floor(random() * (list.length + 1)), 0, structuredClone(entry));
  },
  // The case of an id.
  (places, random) => {
    const words = places.filter(
      ({ holder, key }) => typeof (holder as Record<string | number, unknown>)[key] === 'string',
    );
    if (words.length === 0) return;
    const { holder, key } = pick(random, words);
    const at = holder as Record<string | number, string>;
    at[key] = random() < 0.5 ? at[key].toUpperCase() : at[key].toLowerCase();
  },
];

/** A copy of a document with one to four things changed in it. */
export function mutated<T>(document: T, random: Random): T {
  const copy = structuredClone(document);
  const times = 1 + Math.floor(random() * 4);
  for (let i = 0; i < times; i++) {
    const places = placesIn(copy as Holder);
    if (places.length > 0) pick(random, MUTATIONS)(places, random);
  }
  return copy;
}

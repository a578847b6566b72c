import { countNeeded, type Display, INCH, sumOf } from '../units';

/** What a number is: lengths, areas, forces and pressures fit together in each system, so that a sum can be done by hand. */
export type Unit =
  | 'length'
  | 'area'
  | 'volume'
  | 'force'
  | 'pressure'
  | 'mass'
  | 'spread'
  | 'time'
  | 'count'
  | 'share';

/** A calculation with its numbers: what it comes to and how it reads are both taken from it, so they cannot differ. */
export type Sum =
  | { is: 'number'; value: number; unit: Unit; name: string }
  | { is: 'add'; of: readonly Sum[] }
  | { is: 'less'; from: Sum; of: readonly Sum[] }
  | { is: 'times'; of: readonly Sum[] }
  | { is: 'over'; top: Sum; under: Sum }
  | { is: 'up'; of: Sum }
  | { is: 'root'; of: Sum };

export const number = (value: number, unit: Unit, name: string): Sum => ({ is: 'number', value, unit, name });

/** One pound-force, N (exact). */
const POUND_N = 4.4482216152605;

/** One unit of the reader's system in mm, mm2, newtons, megapascals, grams or grams on a square metre, and its name. */
const SCALES: Record<Unit, Record<Display['system'], readonly [scale: number, name: string]>> = {
  length: { mm: [1, 'mm'], inch: [INCH, 'in'] },
  area: { mm: [1, 'mm²'], inch: [INCH * INCH, 'in²'] },
  volume: { mm: [1, 'mm³'], inch: [INCH ** 3, 'in³'] },
  force: { mm: [1, 'N'], inch: [POUND_N, 'lbf'] },
  pressure: { mm: [1, 'MPa'], inch: [POUND_N / (INCH * INCH), 'psi'] },
  mass: { mm: [1, 'g'], inch: [28.349523125, 'oz'] },
  // Grams on a square millimetre, or ounces on a square inch: so that spread times area is a mass.
  spread: { mm: [1, 'g/mm²'], inch: [28.349523125 / (INCH * INCH), 'oz/in²'] },
  time: { mm: [1, 'min'], inch: [1, 'min'] },
  count: { mm: [1, ''], inch: [1, ''] },
  share: { mm: [1, ''], inch: [1, ''] },
};

/** What a sum comes to, in mm, mm2, N, MPa, g and counts. */
export function valueOf(sum: Sum): number {
  switch (sum.is) {
    case 'number':
      return sum.value;
    case 'add':
      return sumOf(sum.of, (each) => valueOf(each));
    case 'less':
      return sum.of.reduce((total, each) => total - valueOf(each), valueOf(sum.from));
    case 'times':
      return sum.of.reduce((total, each) => total * valueOf(each), 1);
    case 'over':
      return valueOf(sum.top) / valueOf(sum.under);
    case 'up':
      return countNeeded(valueOf(sum.of));
    case 'root':
      return Math.sqrt(valueOf(sum.of));
  }
}

/** A number with its unit, to six figures: enough to do the sum again. */
export function amountText(value: number, unit: Unit, { system }: Display): string {
  const [scale, name] = SCALES[unit][system];
  const text = String(Number((value / scale).toPrecision(7)));
  return name ? `${text} ${name}` : text;
}

/** The sum as it is written down: “(9 × 1.3125 in) − 0.375 in”. */
export function sumText(sum: Sum, display: Display): string {
  const text = (each: Sum) => sumText(each, display);
  const inner = (each: Sum) =>
    each.is === 'number' || each.is === 'root' || each.is === 'up' ? text(each) : `(${text(each)})`;
  switch (sum.is) {
    case 'number':
      return amountText(sum.value, sum.unit, display);
    case 'add':
      return sum.of.map(inner).join(' + ');
    case 'less':
      return [inner(sum.from), ...sum.of.map(inner)].join(' − ');
    case 'times':
      return sum.of.map(inner).join(' × ');
    case 'over':
      return `${inner(sum.top)} ÷ ${inner(sum.under)}`;
    case 'up':
      return `⌈${text(sum.of)}⌉`;
    case 'root':
      return `√(${text(sum.of)})`;
  }
}

/** Every number of a sum with its name, each once, in the order in which it stands. */
export function namesOf(sum: Sum): { value: number; unit: Unit; name: string }[] {
  const out = new Map<string, { value: number; unit: Unit; name: string }>();
  const walk = (each: Sum): void => {
    switch (each.is) {
      case 'number':
        out.set(`${each.name} ${each.value}`, each);
        return;
      case 'over':
        walk(each.top);
        walk(each.under);
        return;
      case 'less':
        walk(each.from);
        each.of.forEach(walk);
        return;
      case 'up':
      case 'root':
        walk(each.of);
        return;
      default:
        each.of.forEach(walk);
    }
  };
  walk(sum);
  return [...out.values()];
}

/** A number of the interface with how it came about. */
export interface Worked {
  /** What it is, as in “Width that comes out”. */
  title: string;
  sum: Sum;
  unit: Unit;
  /** Where the formula and its values come from, and how sure they are. */
  source: string;
}

/** The whole line: the sum and what it comes to. */
export const workedText = ({ sum, unit }: Worked, display: Display): string =>
  `${sumText(sum, display)} = ${amountText(valueOf(sum), unit, display)}`;

import { type LengthSystem, parseLength, withPlainSigns, falling } from '../units';

/*
 * Formulas as a maker writes them: sizes with and without units, fractions, names, the four operations and brackets. A plain
 * number is a length where one is added to it, and a number where it multiplies or divides.
 */

/** A formula that was read. */
export type Formula =
  | { is: 'number'; n: number; mm: number; plain: boolean }
  | { is: 'name'; name: string }
  | { is: 'minus'; of: Formula }
  | { is: '+' | '-' | '*' | '/'; left: Formula; right: Formula };

/** What a part of a formula comes to: a length, a number, or a plain number that may still be either. */
export type Worth =
  | { is: 'length'; mm: number }
  | { is: 'number'; n: number }
  | { is: 'either'; n: number; mm: number };

/** Why a formula cannot be read or worked out, as its maker is told. */
export class FormulaError extends Error {}

type Token =
  | { is: 'number'; n: number; mm: number; plain: boolean }
  | { is: 'name'; name: string }
  | { is: 'sign'; sign: string };

const FRACTION = String.raw`(?:\d+\s+)?\d+\s*\/\s*\d+`;
const DECIMAL = String.raw`\d+(?:[.,]\d+)?|[.,]\d+`;
const FEET = new RegExp(
  String.raw`^(?:${DECIMAL})\s*(?:'|ft\b|feet\b|foot\b)\s*(?:${FRACTION}|${DECIMAL})\s*(?:"|in\b|inch\b|inches\b)`,
  'i',
);
const MEASURE = new RegExp(
  String.raw`^(${FRACTION}|${DECIMAL})\s*(mm|cm|m|inches|inch|in|ft|feet|foot|"|')?(?![\p{L}\p{N}])`,
  'iu',
);
const WORD = /^\p{L}[\p{L}\p{N}]*/u;
/** The longest formula that is read. */
export const LONGEST_FORMULA = 200;
const MOST_DEEP = 40;

/** A name as it is compared: small letters, single spaces. */
export const nameKey = (name: string): string => name.trim().toLowerCase().replaceAll(/\s+/g, ' ');

/** A number without a unit, as a number: `1 1/2`, `0,75`. */
function plainNumber(text: string): number {
  const fraction = /^(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)$/.exec(text.trim());
  return fraction
    ? Number(fraction[1] ?? 0) + Number(fraction[2]) / Number(fraction[3])
    : Number(text.trim().replace(',', '.'));
}

function literal(text: string, system: LengthSystem, plain: boolean): Token {
  const bare = /^0+(?:[.,]0+)?$/.test(text);
  const parsed = bare ? { ok: true as const, length: { mm: 0 } } : parseLength(text, system, { minMm: 0 });
  if (!parsed.ok) throw new FormulaError(`“${text}”: ${parsed.reason}`);
  const { mm } = parsed.length;
  return { is: 'number', n: plain ? plainNumber(text) : mm, mm, plain };
}

/** The words of a formula; names are matched to the longest that is known, so that they may have spaces. */
function tokens(text: string, known: readonly string[], system: LengthSystem): Token[] {
  let rest = withPlainSigns(text).replaceAll(/[−–]/g, '-').replaceAll(/[×·]/g, '*').replaceAll('÷', '/');
  const names = known.toSorted(falling((a) => a.length));
  const out: Token[] = [];
  while ((rest = rest.trimStart()) !== '') {
    const feet = FEET.exec(rest);
    const measure = MEASURE.exec(rest);
    const word = WORD.exec(rest);
    if (feet) {
      out.push(literal(feet[0], system, false));
      rest = rest.slice(feet[0].length);
    } else if (measure) {
      out.push(literal(measure[0], system, measure[2] === undefined));
      rest = rest.slice(measure[0].length);
    } else if ('+-*/()'.includes(rest[0])) {
      out.push({ is: 'sign', sign: rest[0] });
      rest = rest.slice(1);
    } else if (word) {
      const here = rest.toLowerCase().replaceAll(/\s+/g, ' ');
      const name = names.find(
        (each) => here.startsWith(each) && !/^[\p{L}\p{N}]/u.test(here.slice(each.length)),
      );
      if (!name) {
        const said = word[0];
        const near = known.filter((each) => each.startsWith(`${said.toLowerCase()} `));
        throw new FormulaError(
          near.length > 0
            ? `“${said}” has several sizes: write ${near.map((each) => `“${each}”`).join(' or ')}.`
            : `“${said}” is no size of this job. There ${known.length === 1 ? 'is' : 'are'} ${known.join(', ')}.`,
        );
      }
      out.push({ is: 'name', name });
      const spaces = name
        .split(' ')
        .map((part) => part.replaceAll(/[^\p{L}\p{N}]/gu, String.raw`\$&`))
        .join(String.raw`\s+`);
      rest = rest.replace(new RegExp(`^${spaces}`, 'iu'), '');
    } else throw new FormulaError(`“${rest[0]}” has no meaning here.`);
  }
  return out;
}

/** Reads a formula in the shop's system; `known` are the names it may use. Throws a FormulaError with the reason. */
export function readFormula(text: string, known: readonly string[], system: LengthSystem): Formula {
  if (text.length > LONGEST_FORMULA)
    throw new FormulaError(`A formula has at most ${LONGEST_FORMULA} letters.`);
  const all = tokens(text, known, system);
  if (all.length === 0) throw new FormulaError('Write a size, or how it follows from others.');
  let at = 0;
  const sign = () => {
    const token = all[at] as Token | undefined;
    return token?.is === 'sign' ? token.sign : undefined;
  };
  function sum(deep: number): Formula {
    if (deep > MOST_DEEP) throw new FormulaError('Too many brackets in one another.');
    let left = product(deep);
    for (let next = sign(); next === '+' || next === '-'; next = sign()) {
      at += 1;
      left = { is: next, left, right: product(deep) };
    }
    return left;
  }
  function product(deep: number): Formula {
    let left = factor(deep);
    for (let next = sign(); next === '*' || next === '/'; next = sign()) {
      at += 1;
      left = { is: next, left, right: factor(deep) };
    }
    return left;
  }
  function factor(deep: number): Formula {
    if (deep > MOST_DEEP) throw new FormulaError('Too many brackets in one another.');
    const token = all[at] as Token | undefined;
    if (!token) throw new FormulaError('Something is missing at the end.');
    at += 1;
    if (token.is !== 'sign') return token;
    if (token.sign === '-') return { is: 'minus', of: factor(deep + 1) };
    if (token.sign !== '(') throw new FormulaError(`“${token.sign}” stands where a size should.`);
    const inner = sum(deep + 1);
    if (sign() !== ')') throw new FormulaError('A bracket is not closed.');
    at += 1;
    return inner;
  }
  const formula = sum(0);
  if (at < all.length) {
    const token = all[at];
    throw new FormulaError(
      token.is === 'sign'
        ? `“${token.sign}” stands where nothing should.`
        : 'Between two sizes + - * or / is missing.',
    );
  }
  return formula;
}

/** The names that a formula uses. */
export function namesIn(formula: Formula): string[] {
  switch (formula.is) {
    case 'number':
      return [];
    case 'name':
      return [formula.name];
    case 'minus':
      return namesIn(formula.of);
    default:
      return [...namesIn(formula.left), ...namesIn(formula.right)];
  }
}

const added = (a: Worth, b: Worth, sign: 1 | -1): Worth => {
  if (a.is === 'either' && b.is === 'either')
    return { is: 'either', n: a.n + sign * b.n, mm: a.mm + sign * b.mm };
  if (a.is !== 'number' && b.is !== 'number') return { is: 'length', mm: a.mm + sign * b.mm };
  if (a.is !== 'length' && b.is !== 'length') return { is: 'number', n: a.n + sign * b.n };
  throw new FormulaError('A length and a number without one are added: the units do not fit.');
};

const times = (a: Worth, b: Worth): Worth => {
  if (a.is === 'length' && b.is === 'length')
    throw new FormulaError('Two lengths multiplied are an area, no size.');
  if (a.is === 'length') return { is: 'length', mm: a.mm * (b as { n: number }).n };
  if (b.is === 'length') return { is: 'length', mm: a.n * b.mm };
  if (a.is === 'either' && b.is === 'either') return { is: 'either', n: a.n * b.n, mm: a.mm * b.n };
  return a.is === 'either'
    ? { is: 'either', n: a.n * b.n, mm: a.mm * b.n }
    : b.is === 'either'
      ? { is: 'either', n: a.n * b.n, mm: a.n * b.mm }
      : { is: 'number', n: a.n * b.n };
};

const over = (a: Worth, b: Worth): Worth => {
  if ((b.is === 'length' ? b.mm : b.n) === 0) throw new FormulaError('Something is divided by nothing.');
  if (b.is === 'length') {
    if (a.is === 'length') return { is: 'number', n: a.mm / b.mm };
    throw new FormulaError('A number is divided by a length: the units do not fit.');
  }
  if (a.is === 'length') return { is: 'length', mm: a.mm / b.n };
  return a.is === 'either' ? { is: 'either', n: a.n / b.n, mm: a.mm / b.n } : { is: 'number', n: a.n / b.n };
};

function worth(formula: Formula, valueOf: (name: string) => number): Worth {
  switch (formula.is) {
    case 'number':
      return formula.plain
        ? { is: 'either', n: formula.n, mm: formula.mm }
        : { is: 'length', mm: formula.mm };
    case 'name':
      return { is: 'length', mm: valueOf(formula.name) };
    case 'minus':
      return times({ is: 'number', n: -1 }, worth(formula.of, valueOf));
    case '+':
      return added(worth(formula.left, valueOf), worth(formula.right, valueOf), 1);
    case '-':
      return added(worth(formula.left, valueOf), worth(formula.right, valueOf), -1);
    case '*':
      return times(worth(formula.left, valueOf), worth(formula.right, valueOf));
    case '/':
      return over(worth(formula.left, valueOf), worth(formula.right, valueOf));
  }
}

/** What a formula comes to, mm; `valueOf` gives each name's size in mm. Throws a FormulaError where its units do not fit. */
export function workOut(formula: Formula, valueOf: (name: string) => number): number {
  const all = worth(formula, valueOf);
  if (all.is === 'number') throw new FormulaError('This comes out as a number without a length.');
  return all.mm;
}

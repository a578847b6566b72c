import type { BuildDocument, DependentSize, LaidPart, Phrase, Slot, Step, Target } from '../document';
import { DIMENSIONS, failureWords, GLUE_USES } from '../document';
import { ALLOWANCE_NAMES, type AllowanceName, ALLOWANCES, type ShopSnapshot, shopAlone } from '../kit';
import { type AnyField, BASE_FIELDS, roomOf, type Setting, stepTitle } from '../steps';
import { counted, type Length } from '../units';
import { speciesName } from '../wood/common';

/** One change between two versions of a build, as a sentence in the reader's units. */
export type ChangeLine = Phrase[];

/** Whether two values are the same work: how a length was typed does not matter, nor what is missing or undefined. */
const same = (a: unknown, b: unknown): boolean => plain(a) === plain(b);
const plain = (value: unknown): string | undefined =>
  JSON.stringify(value, (key, inner: unknown) => (key === 'typed' ? undefined : inner));

/** The name of a field of the document as words: `blanksAlike` as “blanks alike”. */
const asWords = (key: string): string => key.replaceAll(/([A-Z])/g, (letter) => ` ${letter.toLowerCase()}`);

/** Something said of a value: what it is called, and how it reads; undefined where it has no short words. */
interface Said {
  words: string;
  text?: (value: never, build: BuildDocument) => Phrase | undefined;
}

const length = (value: Length): Phrase => value;
const word = (value: string): Phrase => asWords(value);
const yes = (value: boolean): Phrase => (value ? 'yes' : 'no');

/** “Width 42 in, was 40 in”; where one side is missing, “none”; where a value has no short words, that it is another. */
function turned(
  { words, text }: Said,
  [before, after]: readonly [unknown, unknown],
  [was, is]: readonly [BuildDocument, BuildDocument],
): ChangeLine {
  const read = (value: unknown, build: BuildDocument) =>
    value === undefined ? 'none' : text?.(value as never, build);
  const [then, now] = [read(before, was), read(after, is)];
  return then === undefined || now === undefined ? [`${words} changed`] : [`${words} `, now, ', was ', then];
}

/** What is said of every field of a strip. A field that is added to the document does not compile until it is here. */
const SLOT: Record<Exclude<keyof Slot, 'id'>, Said> = {
  species: { words: 'wood', text: (id: string) => speciesName(id) },
  length: { words: 'length', text: length },
  width: { words: 'width', text: length },
  thickness: { words: 'thickness', text: length },
  grain: { words: 'grain', text: word },
  grade: { words: 'upper face', text: word },
  gradeBelow: { words: 'under face', text: word },
  set: { words: 'set' },
  side: { words: 'heart side', text: word },
  fibre: { words: 'grain direction', text: word },
  sapEdge: { words: 'sapwood side', text: word },
  strip: { words: 'place on a board' },
};

/** Several strips that changed alike are one line. */
interface StripChange {
  key: string;
  numbers: number[];
  line: ChangeLine;
}

function stripLines(builds: readonly [BuildDocument, BuildDocument]): ChangeLine[] {
  const [was, is] = builds;
  return is.assemblies.flatMap((assembly) => {
    const before = was.assemblies.find(({ id }) => id === assembly.id);
    const named = (line: ChangeLine): ChangeLine =>
      is.assemblies.length > 1 ? [`${assembly.name}: `, ...line] : line;
    if (!before) return [[`“${assembly.name}” added, ${counted(assembly.slots.length, 'strip')}`]];
    const lines: ChangeLine[] = [];
    if (before.name !== assembly.name) lines.push([`“${assembly.name}” was “${before.name}”`]);
    if (before.repeat !== assembly.repeat)
      lines.push(named([`made ${assembly.repeat} times, was ${before.repeat}`]));
    const alike: StripChange[] = [];
    for (const [i, slot] of assembly.slots.entries()) {
      const old = before.slots.find(({ id }) => id === slot.id);
      if (!old) {
        lines.push(named([`strip ${i + 1} added: ${speciesName(slot.species)}, `, slot.width, ' wide']));
        continue;
      }
      for (const [name, said] of Object.entries(SLOT) as [Exclude<keyof Slot, 'id'>, Said][]) {
        if (same(old[name], slot[name])) continue;
        const line = turned(said, [old[name], slot[name]], builds);
        const key = plain(line) ?? '';
        const known = alike.find((each) => each.key === key);
        if (known) known.numbers.push(i + 1);
        else alike.push({ key, numbers: [i + 1], line });
      }
    }
    for (const { numbers, line } of alike)
      lines.push(named([`${stripsText(numbers, assembly.slots.length)}: `, ...line]));
    for (const [i, { id, species }] of before.slots.entries())
      if (!assembly.slots.some((slot) => slot.id === id))
        lines.push(named([`strip ${i + 1} (${speciesName(species)}) taken out`]));
    const kept = (slots: readonly Slot[], others: readonly Slot[]) =>
      slots.map(({ id }) => id).filter((id) => others.some((other) => other.id === id));
    if (!same(kept(before.slots, assembly.slots), kept(assembly.slots, before.slots)))
      lines.push(named(['strips in another order']));
    return lines;
  });
}

const stripsText = (numbers: readonly number[], all: number): string =>
  numbers.length === 1
    ? `strip ${numbers[0]}`
    : numbers.length === all
      ? 'all strips'
      : `strips ${numbers.join(', ')}`;

const AIM_WORDS = { fixed: '', atLeast: 'at least ', atMost: 'at most ', free: 'free' } as const;
const aimText = ({ aim, value }: Target['length']): Phrase[] =>
  aim === 'free' || !value ? ['free'] : [AIM_WORDS[aim], value];

const TARGET: Record<Exclude<keyof Target, 'id' | 'length' | 'width' | 'thickness'>, Said> = {
  purpose: { words: 'what it is called', text: (value: string) => `“${value}”` },
  quantity: { words: 'how many', text: String },
  atOnce: { words: 'how many at once', text: String },
  output: { words: 'step it is measured on' },
  tolerance: { words: 'how far off is right', text: length },
};

function targetLines(builds: readonly [BuildDocument, BuildDocument]): ChangeLine[] {
  const [was, is] = builds;
  const named = (target: Target, line: ChangeLine): ChangeLine => [
    is.targets.length > 1 ? `wanted, ${target.purpose}: ` : 'wanted: ',
    ...line,
  ];
  const lines = is.targets.flatMap((target) => {
    const before = was.targets.find(({ id }) => id === target.id);
    if (!before) return [[`“${target.purpose}” is wanted too`]];
    const sizes = DIMENSIONS.flatMap((d) =>
      same(before[d], target[d])
        ? []
        : [named(target, [`${d} `, ...aimText(target[d]), ', was ', ...aimText(before[d])])],
    );
    const others = (Object.entries(TARGET) as [keyof typeof TARGET, Said][]).flatMap(([name, said]) =>
      same(before[name], target[name])
        ? []
        : [named(target, turned(said, [before[name], target[name]], builds))],
    );
    return [...sizes, ...others];
  });
  for (const target of was.targets)
    if (!is.targets.some(({ id }) => id === target.id))
      lines.push([`“${target.purpose}” is wanted no longer`]);
  return lines;
}

/** How a setting of a step reads; undefined where it has no short words. */
function settingText(field: AnyField, value: unknown, { shop }: BuildDocument): Phrase | undefined {
  if (value === undefined) return 'none';
  switch (field.is) {
    case 'length':
      return value as Length;
    case 'number':
      return String(Math.round((value as number) * 1e4) / 1e4);
    case 'flag':
      return yes(value as boolean);
    case 'choice':
      return field.options.find((option) => option.value === value)?.label ?? word(value as string);
    case 'text':
      return `“${value as string}”`;
    case 'moment':
      return (value as string).slice(0, 16).replace('T', ' ');
    case 'id':
      return field.of === 'wood' ? speciesName(value as string) : toolName(value as string, shop);
    case 'cutter': {
      const { saw, machine } = value as { saw?: string; machine?: string };
      return toolName(saw ?? machine ?? '', shop);
    }
    default:
      return undefined;
  }
}

const toolName = (id: string, { saws, machines }: ShopSnapshot): string | undefined =>
  [...saws, ...machines].find((each) => each.id === id)?.name;

/** What is said of the settings that every step has; of the others their own room says what they are called. */
const STEP_WORDS: Record<keyof typeof BASE_FIELDS, string> = {
  id: 'id',
  name: 'name',
  inputs: 'what it takes',
  output: 'what it gives',
  only: 'which pieces it takes',
  off: 'left out for now',
  done: 'done',
  doneAt: 'when it was done',
  operations: 'operations done at the bench',
  work: 'when hands were on it',
  early: 'begun before a wait was over',
  note: 'note',
  marks: 'pencil marks',
  photos: 'photos',
  spoilt: 'spoilt pieces',
  begin: 'begins',
};

const TURNS = ['endForEnd', 'rollOver', 'quarter'] as const;
const TURN_WORDS = { endForEnd: 'turned end for end', rollOver: 'rolled over', quarter: 'turned a quarter' };

/** Parts that lie otherwise in a glue-up: turned, in another order, one more or fewer. */
function partLines(before: readonly LaidPart[] | undefined, after: readonly LaidPart[] = []): ChangeLine[] {
  const lines: ChangeLine[] = [];
  for (const [i, part] of after.entries()) {
    // Laid by nobody's hand before, they lay as they came and were not turned.
    const old: LaidPart | undefined = before
      ? before.find(({ piece }) => piece === part.piece)
      : { piece: part.piece };
    if (!old) continue;
    for (const turn of TURNS)
      if ((old[turn] ?? false) !== (part[turn] ?? false))
        lines.push([`part ${i + 1} ${TURN_WORDS[turn]}${part[turn] ? '' : ', back again'}`]);
    if ((old.locked ?? false) !== (part.locked ?? false))
      lines.push([`part ${i + 1} ${part.locked ? 'stays where it lies' : 'free to be moved'}`]);
  }
  const order = (parts: readonly LaidPart[], others: readonly LaidPart[]) =>
    parts.map(({ piece }) => piece).filter((piece) => others.some((other) => other.piece === piece));
  const moved = before ? !same(order(before, after), order(after, before)) : lines.length === 0;
  return moved ? [...lines, ['parts in another order']] : lines;
}

function settingLines(
  before: Step,
  after: Step,
  builds: readonly [BuildDocument, BuildDocument],
): ChangeLine[] {
  const [was, is] = builds;
  const fields: Record<string, Setting | undefined> = { ...BASE_FIELDS, ...roomOf(after).fields };
  const keys = [...new Set([...Object.keys(before), ...Object.keys(after)])];
  const value = (step: Step, key: string) => (step as unknown as Record<string, unknown>)[key];
  return keys.flatMap((key) => {
    const [then, now] = [value(before, key), value(after, key)];
    if (same(then, now) || key === 'doneAt' || key === 'work') return [];
    if (key === 'done') return [[now ? 'done' : 'not done any more']];
    if (key === 'parts') {
      const lines = partLines(then as LaidPart[], now as LaidPart[]);
      return lines.length > 0 ? lines : [['parts changed']];
    }
    const field = fields[key];
    const label = typeof field?.label === 'function' ? field.label(after as never) : field?.label;
    const words = label ?? STEP_WORDS[key as keyof typeof STEP_WORDS] ?? asWords(key);
    const text = (of: unknown, build: BuildDocument) => (field ? settingText(field, of, build) : undefined);
    const [old, fresh] = [text(then, was), text(now, is)];
    return [
      old === undefined || fresh === undefined ? [`${words} changed`] : [`${words} `, fresh, ', was ', old],
    ];
  });
}

function stepLines(builds: readonly [BuildDocument, BuildDocument]): ChangeLine[] {
  const [was, is] = builds;
  const lines: ChangeLine[] = [];
  for (const step of is.steps) {
    const before = was.steps.find(({ id }) => id === step.id);
    const title = stepTitle(is, step);
    if (!before) lines.push([`step “${title}” put in`]);
    else if (before.kind !== step.kind)
      lines.push([`step “${title}” in place of “${stepTitle(was, before)}”`]);
    else for (const line of settingLines(before, step, builds)) lines.push([`${title}: `, ...line]);
  }
  for (const step of was.steps)
    if (!is.steps.some(({ id }) => id === step.id)) lines.push([`step “${stepTitle(was, step)}” taken out`]);
  const order = (steps: readonly Step[], others: readonly Step[]) =>
    steps.map(({ id }) => id).filter((id) => others.some((other) => other.id === id));
  if (!same(order(was.steps, is.steps), order(is.steps, was.steps))) lines.push(['steps in another order']);
  return lines;
}

function readingLines([was, is]: readonly [BuildDocument, BuildDocument]): ChangeLine[] {
  const titleOf = (build: BuildDocument, id: string) => {
    const step = build.steps.find((each) => each.id === id);
    return step ? stepTitle(build, step) : id;
  };
  const lines: ChangeLine[] = is.readings.flatMap((reading) => {
    const before = was.readings.find(({ id }) => id === reading.id);
    if (before && same(before, reading)) return [];
    const words = `measured after ${titleOf(is, reading.step)}: ${reading.dimension} `;
    return [before ? [words, reading.measured, ', was ', before.measured] : [words, reading.measured]];
  });
  for (const { id, step, dimension } of was.readings)
    if (!is.readings.some((reading) => reading.id === id))
      lines.push([`measurement after ${titleOf(was, step)} taken back: ${dimension}`]);
  return lines;
}

const useName = (id: string): string => GLUE_USES.find((use) => use.id === id)?.name ?? id;

const SHOP_WORDS: Partial<Record<keyof ShopSnapshot, string>> = {
  display: 'how numbers are read',
  settingStep: 'setting step',
  saws: 'saws',
  machines: 'machines',
  clamps: 'clamps',
  adhesives: 'glue',
  climate: 'the air',
  woodMoisturePct: 'moisture of the wood',
};

/** What a job allows for itself, and did before; where it follows the shop, the shop's. */
function allowanceLines([was, is]: readonly [BuildDocument, BuildDocument]): ChangeLine[] {
  const read = ({ brief, shop }: BuildDocument, name: AllowanceName): Phrase[] => [
    brief?.allowances?.[name] ?? shopAlone(shop).allowances[name],
    brief?.allowances?.[name] ? '' : ' (the shop’s)',
  ];
  return ALLOWANCE_NAMES.filter(
    (name) => !same(was.brief?.allowances?.[name], is.brief?.allowances?.[name]),
  ).map((name) => [`${ALLOWANCES[name].title}: `, ...read(is, name), ', was ', ...read(was, name)]);
}

/** Sizes that follow from others, one by one. */
function sizeLines(was: readonly DependentSize[], is: readonly DependentSize[]): ChangeLine[] {
  const before = new Map(was.map((size) => [size.id, size]));
  const here = new Set(is.map(({ id }) => id));
  return [
    ...is.flatMap((size): ChangeLine[] => {
      const old = before.get(size.id);
      const must: Phrase[] = size.wanted?.value ? [', must be ', size.wanted.value] : [];
      if (!old) return [[`“${size.name}” follows from “${size.formula}”`, ...must]];
      return same(old, size)
        ? []
        : [[`“${size.name}”: “${size.formula}”`, ...must, `, was “${old.name}”: “${old.formula}”`]];
    }),
    ...was.filter(({ id }) => !here.has(id)).map(({ name }) => [`“${name}” no longer follows`]),
  ];
}

/** What is compared of a build, each part by its own words. A part that is added to the document does not compile until it is here. */
const PARTS: Record<
  Exclude<keyof BuildDocument, 'format' | 'version'>,
  (builds: readonly [BuildDocument, BuildDocument]) => ChangeLine[]
> = {
  place: () => [['where it will stand changed']],
  name: ([was, is]) => [[`named “${is.name}”, was “${was.name}”`]],
  use: ([was, is]) => [[`for “${is.use}”, was for “${was.use}”`]],
  earlier: ([was, is]) => [
    [
      is.earlier
        ? `made again from “${is.earlier.name}”`
        : `no longer made again from “${was.earlier?.name ?? ''}”`,
    ],
  ],
  promised: ([was, is]) => [[`promised for ${is.promised ?? 'no day'}, was for ${was.promised ?? 'no day'}`]],
  targets: targetLines,
  assemblies: (builds) => [
    ...stripLines(builds),
    ...builds[0].assemblies
      .filter(({ id }) => !builds[1].assemblies.some((each) => each.id === id))
      .map(({ name }) => [`“${name}” taken out`]),
  ],
  steps: stepLines,
  readings: readingLines,
  checks: ([was, is]) => [
    [`${counted((is.checks ?? []).length, 'check')} at its steps, was ${(was.checks ?? []).length}`],
  ],
  failures: ([was, is]) =>
    (is.failures ?? [])
      .filter(({ id }) => !(was.failures ?? []).some((each) => each.id === id))
      .map((failure) => [`failed: ${failureWords(failure)}`]),
  boards: ([was, is]) => [
    was.boards.length === is.boards.length
      ? ['boards changed']
      : [`${counted(is.boards.length, 'board')} chosen, was ${was.boards.length}`],
  ],
  sizes: ([was, is]) => sizeLines(was.sizes ?? [], is.sizes ?? []),
  uses: ([was, is]) => [
    [
      `what the glue must stand: ${(is.uses ?? []).map(useName).join(', ') || 'nothing said'}, was ${(was.uses ?? []).map(useName).join(', ') || 'nothing said'}`,
    ],
  ],
  shop: ([was, is]) => {
    // What the job allows for itself is said with its brief.
    const [old, now] = [shopAlone(was.shop), shopAlone(is.shop)];
    const keys = [...new Set([...Object.keys(old), ...Object.keys(now)])] as (keyof ShopSnapshot)[];
    const changed = keys.filter((key) => !same(old[key], now[key]));
    if (changed.length === 0) return [];
    return [
      [`planned with another kit: ${changed.map((key) => SHOP_WORDS[key] ?? asWords(key)).join(', ')}`],
    ];
  },
  // What else is planned with stands in the job as well, and is said there.
  brief: allowanceLines,
  breakdown: () => [['how boards are broken down changed']],
};

/**
 * What was changed from one version of a build to the next, a line each, in the order in which a job is read. Never
 * empty where the work differs, and empty where it does not: lengths typed otherwise are the same work.
 */
export function changesBetween(before: BuildDocument, after: BuildDocument): ChangeLine[] {
  const lines = (Object.keys(PARTS) as (keyof typeof PARTS)[]).flatMap((part) => {
    if (same(before[part], after[part])) return [];
    const own = PARTS[part]([before, after]);
    return own.length > 0 || part === 'brief' || part === 'shop' ? own : [[`${asWords(part)} changed`]];
  });
  return lines.length > 0 || same(before.brief, after.brief)
    ? lines
    : [['what the pattern was planned with changed']];
}

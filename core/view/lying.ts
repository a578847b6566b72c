import {
  type BuildDocument,
  type DimensionName,
  type Edit,
  type GluePlan,
  type LaidPart,
  type LaidPlace,
  type Rows,
  type Step,
} from '../document';
import { reaches } from '../edit';
import { adhesiveFor, gatesOf, glueUpOf } from '../glueup';
import { climateOf, glueTimes } from '../kit';
import type { Outlook } from '../review';
import { extents, type Vec3 } from '../solid';
import { asGlueUp, type GlueStep, roomOf, stepTitle, type Timeline, type TimelineStep } from '../steps';
import { counted, sumOf } from '../units';
import { speciesName } from '../wood';

/** A piece that lies somewhere, as it is called, with its sizes in mm. */
export interface LyingPiece {
  id: string;
  name: string;
  size: Vec3;
}

/** Pieces as they are called: strips by their place and wood, others by what they are and their number. */
export function named(
  build: BuildDocument,
  step: Step | undefined,
  pieces: TimelineStep['pieces'],
): LyingPiece[] {
  const slots = new Map(
    build.assemblies.flatMap(({ slots: own }) =>
      own.map((slot, i) => [slot.id, { slot, nth: i + 1 }] as const),
    ),
  );
  const word = (step && roomOf(step).each?.name) ?? 'piece';
  return pieces.map(({ id, blank }, i) => {
    const strip = slots.get(id);
    const name = strip
      ? `strip ${strip.nth}, ${speciesName(strip.slot.species)}`
      : pieces.length > 1
        ? `${word} ${i + 1}`
        : word;
    return { id, name, size: extents(blank) };
  });
}

/** Pieces that lie on the bench at a moment, as one step gave them. */
export interface Lying {
  output: string;
  /** The step they came from, by its title and its id. */
  from: string;
  step: string;
  pieces: LyingPiece[];
  /** The step that takes them later, by its title; nobody's if missing. */
  goesTo?: string;
  /** They come out of a glue-up: hours in clamps, and until when (ms since 1970) where it is in clamps already. */
  clamps?: { hours: number; untilMs?: number };
}

/** All that the job screen shows of a build: what was predicted, and what lies on the bench beside the chosen step. */
export interface JobOutlook extends Outlook {
  lying: Lying[];
  /** Parts of the chosen step in order, where it is a glue-up whose parts a hand may place. */
  parts?: PartLine[];
}

/**
 * What lies on the bench just before a step, beside what it takes: pieces that earlier steps left, with the step that takes
 * them later. Pieces of the same line that only wait are told too.
 */
export function lyingAt(build: BuildDocument, timeline: Timeline, id: string): Lying[] {
  const at = build.steps.findIndex((step) => step.id === id);
  const step = build.steps[at];
  if (!step) return [];
  const gone = new Set(
    timeline.steps
      .filter((seen) => build.steps.findIndex((each) => each.id === seen.id) <= at)
      .flatMap((seen) => taken(build, seen)),
  );
  return build.steps.flatMap((maker): Lying[] => {
    const seen = timeline.steps.find((each) => each.id === maker.id);
    if (!seen || maker.id === id || reaches(build, step, maker)) return [];
    const pieces = seen.pieces.filter((piece) => !gone.has(piece));
    if (pieces.length === 0) return [];
    const later = timeline.steps.find((each) => taken(build, each).some((piece) => pieces.includes(piece)));
    const next = build.steps.find((each) => each.id === later?.id);
    // What is made later lies there only where it can wait to be laid in: the order of work then changes.
    if (build.steps.indexOf(maker) > at && (next || !asGlueUp(step))) return [];
    return [
      {
        output: maker.output,
        from: stepTitle(build, maker),
        step: maker.id,
        pieces: named(build, maker, pieces),
        ...(next ? { goesTo: stepTitle(build, next) } : {}),
        ...inClamps(build, timeline, maker),
      },
    ];
  });
}

const HOUR_MS = 3_600_000;

/** How long what a glue-up gives stays in clamps, and until when, where it is clamped; nothing for any other step. */
function inClamps(build: BuildDocument, timeline: Timeline, maker: Step): Pick<Lying, 'clamps'> {
  const glue = asGlueUp(maker);
  const glueUp = glue && glueUpOf(build, timeline, maker.id);
  if (!glue || !glueUp) return {};
  const facts = adhesiveFor(glueUp, build.shop);
  const hours = gatesOf(facts && glueTimes(facts, climateOf(build.shop)), build.shop).unclampH;
  const plan: GluePlan | undefined = glue.plan;
  const since = Date.parse(plan?.clamped ?? (glue.done ? (glue.doneAt ?? '') : ''));
  return { clamps: { hours, ...(Number.isFinite(since) ? { untilMs: since + hours * HOUR_MS } : {}) } };
}

/** The pieces a step really works on: of a glue-up those it lays. */
function taken(build: BuildDocument, { id, entered }: TimelineStep): TimelineStep['pieces'] {
  const parts = asGlueUp(build.steps.find((step) => step.id === id))?.parts;
  if (!parts) return entered;
  const laid = new Set(parts.map(({ piece }) => piece));
  const named = entered.filter((piece) => laid.has(piece.id));
  return named.length > 0 ? named : entered;
}

/**
 * The edit that lays pieces from the bench into a glue-up that lays `laid` now: after those or, with `every`, one new one
 * after so many old ones. Undefined where the step is no glue-up.
 */
export function layingIn(
  build: BuildDocument,
  {
    step: id,
    laid,
    output,
    pieces,
    every,
  }: {
    step: string;
    laid: readonly string[];
    output: string;
    pieces: readonly string[];
    every?: number | undefined;
  },
): Edit | undefined {
  const glue = asGlueUp(build.steps.find((step) => step.id === id));
  if (!glue) return undefined;
  const old: LaidPart[] = glue.parts ?? laid.map((piece) => ({ piece }));
  const fresh = pieces.map((piece): LaidPart => ({ piece }));
  return {
    do: 'takeIn',
    step: id,
    output,
    parts: every ? interleaved(old, fresh, every) : [...old, ...fresh],
  };
}

/** One list laid among another: one new after every so many old ones, what is left over at the end. */
export function interleaved<T>(old: readonly T[], fresh: readonly T[], every: number): T[] {
  const left = [...fresh];
  const out = old.flatMap((part, i) => {
    const next = (i + 1) % Math.max(1, every) === 0 ? left.shift() : undefined;
    return next === undefined ? [part] : [part, next];
  });
  return [...out, ...left];
}

/** The edit that leaves a part out of a glue-up that lays `laid` now: it lies on the bench then. Undefined where it cannot. */
export function layingOut(
  build: BuildDocument,
  { step: id, laid, piece }: { step: string; laid: readonly string[]; piece: string },
): Edit | undefined {
  const glue = asGlueUp(build.steps.find((step) => step.id === id));
  const parts: LaidPart[] | undefined = glue && (glue.parts ?? laid.map((each) => ({ piece: each })));
  if (!parts?.some((part) => part.piece === piece)) return undefined;
  return { do: 'layParts', step: id, parts: parts.filter((part) => part.piece !== piece) };
}

/** Whether the parts of a glue-up lie in one row that a hand may put in another order. */
export const isOneRow = (glue: GlueStep): boolean => !glue.rows && isButted(glue);

/** Whether parts are butted, in one row or several, so that a gap before one and its shift can be set. */
export const isButted = (glue: GlueStep): boolean =>
  !glue.shifts &&
  (glue.blanks ?? 1) === 1 &&
  !glue.parts?.some(({ place }) => place?.x !== undefined || place?.about !== undefined);

/** Whether a glue-up joins what comes from several lines, side by side, in an order that a hand may change by dragging. */
export const laysByHand = (step: Step): boolean => {
  const glue = asGlueUp(step);
  return (
    glue !== undefined && glue.inputs.length > 1 && glue.along === 'width' && !glue.turns && isOneRow(glue)
  );
};

/**
 * The edit that changes a part of a glue-up that lays `laid` now, or its place: undefined where the step is none, has no
 * such part, or lays its parts in more than one row.
 */
export function partChanged(
  build: BuildDocument,
  { step: id, laid, piece }: { step: string; laid: readonly string[]; piece: string },
  change: { turn: 'endForEnd' | 'rollOver' } | { to: number } | { place: Partial<LaidPlace> },
): Edit | undefined {
  const glue = asGlueUp(build.steps.find((step) => step.id === id));
  if (!glue || !('place' in change ? isButted(glue) : isOneRow(glue))) return undefined;
  const parts: LaidPart[] = glue.parts ?? laid.map((each) => ({ piece: each }));
  const at = parts.findIndex((part) => part.piece === piece);
  if (at < 0) return undefined;
  if ('turn' in change) {
    const { turn } = change;
    return {
      do: 'layParts',
      step: id,
      parts: parts.map((part, i) => (i === at ? { ...part, [turn]: !part[turn] } : part)),
    };
  }
  if ('place' in change) {
    const place = Object.fromEntries(
      Object.entries({ ...parts[at].place, ...change.place }).filter(([, value]) => value !== undefined),
    );
    const { place: _, ...plain } = parts[at];
    const part = Object.keys(place).length > 0 ? { ...plain, place } : plain;
    // Whatever a rule turns stays turned by it.
    return { do: 'setStep', step: id, change: { parts: parts.with(at, part) } };
  }
  if (change.to < 0 || change.to >= parts.length || change.to === at) return undefined;
  return { do: 'layParts', step: id, parts: parts.toSpliced(at, 1).toSpliced(change.to, 0, parts[at]) };
}

/** Names of the dimensions along which parts can be laid. */
export const LAY_ALONG: readonly { value: DimensionName; label: string }[] = [
  { value: 'width', label: 'Side by side' },
  { value: 'length', label: 'End to end' },
  { value: 'thickness', label: 'On one another' },
];

/** The parts of a step by name, where it is a glue-up of parts that are butted. */
export function partsShown(
  build: BuildDocument,
  timeline: Timeline,
  id: string | undefined,
): PartLine[] | undefined {
  const glue = asGlueUp(build.steps.find((step) => step.id === id));
  return glue && isButted(glue) ? partLines(build, timeline, glue) : undefined;
}

/** A part of a glue-up in the order it is laid, as it is called and as it lies. */
export interface PartLine {
  piece: string;
  name: string;
  /** How it is turned, in words; empty where it is not. */
  turned: string;
  /** Open before it, and how far it is shifted along its joint, mm; 0 for neither. */
  gapMm: number;
  shiftMm: number;
}

/** The parts of a glue-up in order, by name: those that lie beneath others too. */
export function partLines(build: BuildDocument, timeline: Timeline, step: GlueStep): PartLine[] {
  const entry = timeline.steps.find(({ id }) => id === step.id);
  if (!entry?.laid) return [];
  const names = new Map(
    step.inputs.flatMap((input) => {
      const maker = build.steps.find(({ output }) => output === input);
      const seen = timeline.steps.find(({ id }) => id === maker?.id);
      const pieces = seen?.pieces ?? [];
      const from = step.inputs.length > 1 && maker ? stepTitle(build, maker) : '';
      return named(build, maker, pieces).map(({ id, name }) => {
        const strip = build.assemblies.some(({ slots }) => slots.some((slot) => slot.id === id));
        return [
          id,
          pieces.length === 1 && from && !strip ? from : [name, from].filter(Boolean).join(', '),
        ] as const;
      });
    }),
  );
  return entry.laid.map(({ piece, endForEnd, rollOver }) => {
    const place = step.parts?.find((part) => part.piece === piece)?.place;
    return {
      piece,
      name: names.get(piece) ?? piece,
      turned: [endForEnd ? 'end for end' : '', rollOver ? 'rolled over' : ''].filter(Boolean).join(', '),
      gapMm: place?.spacer?.mm ?? 0,
      shiftMm: place?.offset?.mm ?? 0,
    };
  });
}

/** Rows read from counts such as `1, 2, 1`, or why they are none. */
export type ParsedRows = { rows: Rows } | { why: string };

/** Across which dimension rows of parts laid along another lie. */
const ROWS_ACROSS: Record<DimensionName, DimensionName> = {
  length: 'width',
  width: 'length',
  thickness: 'width',
};

/**
 * Rows as a maker types them: how many parts lie in each, `1, 2, 1` or `3 x 4`. All parts there are must lie in one.
 * Never throws.
 */
export function parseRows(text: string, along: DimensionName, parts: number): ParsedRows {
  const counts = text
    .split(/[,;]/)
    .map((part) => part.trim())
    .filter((part) => part !== '')
    .flatMap((part) => {
      const times = /^(\d{1,3})\s*[x×]\s*(\d{1,4})$/.exec(part);
      if (times) return Array.from({ length: Number(times[1]) }, () => Number(times[2]));
      return [/^\d{1,4}$/.test(part) ? Number(part) : Number.NaN];
    });
  if (counts.length === 0 || counts.some((count) => !(count >= 1)))
    return { why: 'how many parts lie in each row, such as 1, 2, 1' };
  const sum = sumOf(counts);
  if (sum !== parts) return { why: `these rows hold ${sum}; there are ${counted(parts, 'part')}` };
  return { rows: { counts, across: ROWS_ACROSS[along] } };
}

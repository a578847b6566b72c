import { sumOf } from '../units';
import { type BuildDocument, type Check, failureWords, phraseText, type Step } from '../document';
import { CHECKS, glueTaken, handsOn, toolOf, whoDid } from '../bench';
import { paceOf } from '../kit';
import { run } from '../run';
import { blankVolume, blankVolumes, extents } from '../solid';
import { asPlayed, handMinutes, roomOf, stepTitle, type TimelineStep, type Timeline } from '../steps';
import { boardCost, boardVolume } from '../stock';
import { actsTimed, wasTimed } from './acts';
import { LIKELY_SD } from './bands';
import { finenessOf } from './fineness';
import type { LogLine, TaughtRow } from './line';
import { actWords, LOSSES, PACE_SD } from './losses';
import { rowsOf, sizesOf, type ReadStep } from './readings';
import { readingVariance, tailRow } from './rows';

/** Hands that were on a step for less than this were not timed, minutes: it was ticked, not worked at. */
const LEAST_MINUTES = 0.5;
const MINUTE_MS = 60_000;

/** The species there is most of in what a step gives. */
function woodOf(entry: TimelineStep | undefined): string | undefined {
  const total = new Map<string, number>();
  for (const { blank } of entry?.pieces ?? [])
    for (const [species, mm3] of Object.entries(blankVolumes(blank)))
      total.set(species, (total.get(species) ?? 0) + mm3);
  return [...total].sort(([, a], [, b]) => b - a)[0]?.[0];
}

/**
 * Everything that was read, checked, timed or failed at a job, with what had been predicted just before by the readings of the steps before
 * it, and the rows it teaches. `changed` stands for the time of what was not dated. Pure, and never throws for anything that a document holds.
 */
export function linesOf(build: BuildDocument, changed: string): LogLine[] {
  if (!tells(build)) return [];
  const bare = run({ ...build, readings: [] });
  const whole = build.readings.length > 0 ? run(build) : bare;
  const played = asPlayed(build, whole);
  const entryOf = (timeline: Timeline, id: string) => timeline.steps.find((step) => step.id === id);
  const common = (step: Step, taken: string | undefined) => {
    const tool = toolOf(step, build);
    const wood = woodOf(entryOf(whole, step.id));
    return {
      at: dated(taken, changed),
      step: step.id,
      stepKind: step.kind,
      name: stepTitle(build, step),
      ...(tool ? { tool: tool.id, toolName: tool.name } : {}),
      ...(wood ? { wood } : {}),
    };
  };
  const lines: LogLine[] = [];
  let before = bare;
  const known = new Set<string>();
  for (const step of played.steps) {
    const own = build.readings.filter((reading) => reading.step === step.id);
    if (own.length > 0) {
      const readings = build.readings.filter((reading) => known.has(reading.step));
      before = readings.length > 0 ? run({ ...build, readings }, before) : bare;
      const entry = entryOf(before, step.id);
      if (entry)
        lines.push(
          ...sizeLines({ build, step: entry.as ?? step, entry, sources: before.sources, bare }, common),
        );
      known.add(step.id);
    }
    const entry = entryOf(whole, step.id);
    for (const check of (build.checks ?? []).filter((each) => each.step === step.id)) {
      const [piece] = entry?.pieces ?? [];
      const result = piece && CHECKS[check.kind].judge(check.values, { build, timeline: whole, step, piece });
      const row =
        entry && (glueRow(check, { build, step, whole }) ?? checkRow(check, { build, step, entry }));
      lines.push({
        id: `check:${check.id}`,
        kind: 'check',
        ...common(step, check.taken),
        ...by(check),
        words: `${CHECKS[check.kind].name}${result ? `: ${phraseText(result.words, build.shop.display)}` : ''}`,
        ...(check.values.length === 1 && CHECKS[check.kind].of === 'length'
          ? { measured: check.values[0] }
          : {}),
        ...(row && CHECKS[check.kind].of === 'length' ? { predicted: row.predicted } : {}),
        rows: row ? [row.row] : [],
      });
    }
    for (const acts of actsTimed(build, whole, step.id))
      lines.push({
        id: `act:${step.id}:${acts.act}`,
        kind: 'minutes',
        ...common(step, acts.at),
        predicted: acts.planned,
        measured: acts.taken,
        likely: acts.likely,
        words: `Dry run: ${actWords(acts.act)}, ${acts.count}`,
        rows: acts.rows,
      });
    if (step.done && step.work) lines.push(...timeLine(step, { build, entry, common }));
  }
  for (const failure of build.failures ?? []) {
    const step = played.steps.find(({ id }) => id === failure.step);
    if (!step) continue;
    lines.push({
      id: `failure:${failure.id}`,
      kind: 'failure',
      ...common(step, failure.at),
      ...(failure.who === undefined ? {} : { who: failure.who }),
      ...(failure.measured ? { measured: failure.measured.mm } : {}),
      words: failureWords(failure),
      cause: failure.kind,
      struck: failure.pieces?.length ?? 0,
      ...(failure.warned ? { warned: failure.warned } : {}),
      ...lostOf(failure.pieces?.length ?? 0, entryOf(whole, step.id), build),
      rows: [],
    });
  }
  return lines;
}

/** Whether anything was written down of a job: most have nothing yet, and are not played forward for it. */
const tells = ({ readings, checks = [], failures = [], steps }: BuildDocument): boolean =>
  readings.length + checks.length + failures.length > 0 ||
  steps.some((step) => (step.done && step.work) || wasTimed(step));

/** What the wood of pieces that failed cost, by the mean price of the job's own boards; nothing where those have none. */
function lostOf(
  struck: number,
  entry: TimelineStep | undefined,
  { boards }: BuildDocument,
): { lostMinor?: number } {
  const [piece] = entry?.pieces ?? [];
  const priced = boards.flatMap((board) => {
    const cost = boardCost(board);
    return cost ? [{ minor: cost.minor, mm3: boardVolume(board) }] : [];
  });
  const mm3 = sumOf(priced, (each) => each.mm3);
  if (struck === 0 || !piece || !(mm3 > 0)) return {};
  const rate = sumOf(priced, ({ minor }) => minor) / mm3;
  return { lostMinor: Math.round(struck * blankVolume(piece.blank) * rate) };
}

/** A note of a job as a line: its words, or that it is a photo. */
export function noteLine(
  build: BuildDocument,
  {
    id,
    at,
    step: of,
    words,
    who,
    photo,
  }: { id: string; at: string; step?: string; words: string; who?: string; photo: boolean },
): LogLine {
  const step = build.steps.find((each) => each.id === of);
  return {
    id: `note:${id}`,
    kind: 'note',
    at: dated(at, at),
    step: step?.id ?? '',
    stepKind: step?.kind ?? '',
    name: step ? stepTitle(build, step) : 'The whole job',
    ...(who === undefined ? {} : { who }),
    words: [words, photo && 'with a photo'].filter(Boolean).join('; '),
    rows: [],
  };
}

const dated = (taken: string | undefined, changed: string): string =>
  taken !== undefined && Number.isFinite(Date.parse(taken)) ? new Date(taken).toISOString() : changed;
const by = ({ who, gauge }: Pick<Check, 'who' | 'gauge'>) => ({
  ...(who === undefined ? {} : { who }),
  ...(gauge === undefined ? {} : { gauge }),
});
type Common = (step: Step, taken: string | undefined) => Omit<LogLine, 'id' | 'kind' | 'rows'>;

function sizeLines(at: ReadStep, common: Common): LogLine[] {
  const rows = rowsOf(at);
  return sizesOf(at).map(({ reading, predicted, likely, fineness }) => ({
    id: `size:${reading.id}`,
    kind: 'size' as const,
    ...common(at.step, reading.taken),
    dimension: reading.dimension,
    ...(reading.piece === undefined ? {} : { piece: reading.piece }),
    ...by(reading),
    predicted,
    measured: reading.measured.mm,
    // What the gauge adds is part of what a reading may be off by.
    likely: Math.hypot(likely, LIKELY_SD * Math.sqrt(readingVariance(fineness))),
    ...(at.build.shop.band === undefined ? {} : { band: at.build.shop.band }),
    rows: rows.filter((each) => each.reading === reading.id).map(({ row }) => row),
  }));
}

/** What a check teaches: a test cut the kerf, what is left of a blank the kerf and the stop. */
function checkRow(
  { kind, values: [value], gauge }: Check,
  { build, step, entry }: { build: BuildDocument; step: Step; entry: TimelineStep },
): { predicted: number; row: TaughtRow } | undefined {
  const saw = build.shop.saws.find(({ id }) => id === toolOf(step, build)?.id);
  if (!saw || !(value > 0)) return undefined;
  const kerf = `kerf:${saw.id}` as const;
  const used = { [kerf]: saw.kerf.mm };
  const fineness = finenessOf({ mm: value }, gauge);
  if (kind === 'kerf')
    return {
      predicted: saw.kerf.mm,
      row: {
        y: value - saw.kerf.mm,
        a: { [kerf]: 1 },
        b: {},
        g2: readingVariance(fineness),
        kind: kerf,
        used,
      },
    };
  const gives = roomOf(step).gives?.(step);
  const [blank] = entry.entered;
  if (kind !== 'tail' || !gives || !blank || entry.entered.length !== 1) return undefined;
  const readOf = build.readings.filter(
    (reading) => reading.step === step.id && reading.dimension === 'length' && reading.piece !== undefined,
  );
  const n = entry.pieces.length + (step.spoilt?.length ?? 0);
  const length = extents(blank.blank)[0];
  const head = (step as { head?: { mm: number } }).head?.mm ?? 0;
  const cuts = head > 0 ? n + 1 : n;
  const slices = readOf.length > 0 ? readOf.map(({ measured }) => measured.mm) : [gives.mm];
  const read = readOf.length > 0;
  const row = tailRow({
    blank: length - head,
    tail: value,
    slices,
    n,
    cuts,
    practice: saw.kerf.mm,
    fineness: finenessOf(readOf[0]?.measured ?? { mm: gives.mm }, readOf[0]?.gauge),
    tape: fineness,
    kerf,
    piece: 'piece:shop',
  });
  const predicted = length - head - n * (sumOf(slices) / slices.length) - cuts * saw.kerf.mm;
  return {
    predicted,
    row: read
      ? { ...row, used }
      : {
          ...row,
          // No slice was read: what the stop is off by goes into all of them.
          a: { ...row.a, [`bias:${saw.id}:stop`]: -n },
          b: { [`setting:${saw.id}`]: n ** 2, 'piece:shop': n },
          g2: 2 * readingVariance(fineness),
          used,
        },
  };
}

/** What weighing the glue teaches of its spread. Grams. */
function glueRow(
  { kind, values: [kg] }: Check,
  { build, step, whole }: { build: BuildDocument; step: Step; whole: Timeline },
): { predicted: number; row: TaughtRow } | undefined {
  const taken = kind === 'glueUsed' && kg > 0 ? glueTaken(step, build, whole) : undefined;
  if (!taken || !(taken.grams > 0)) return undefined;
  const glue = `glue:${taken.adhesive}` as const;
  const standing = LOSSES.glue.standing(build.shop, taken.adhesive)?.value ?? 1;
  return {
    predicted: taken.grams / 1000,
    row: {
      y: Math.log((1000 * kg) / taken.grams),
      a: { [glue]: 1 },
      b: { 'scatter:glue': 1 },
      g2: 0,
      kind: glue,
      used: { [glue]: Math.log(standing) },
    },
  };
}

/** How long hands were on a step, against the minutes that were planned. */
function timeLine(
  step: Step,
  { build, entry, common }: { build: BuildDocument; entry: TimelineStep | undefined; common: Common },
): LogLine[] {
  const { flow } = roomOf(step);
  const last = step.work?.at(-1)?.to;
  const taken = handsOn(step, Date.parse(last ?? '') || 0) / MINUTE_MS;
  // Glue-ups are timed act by act; waits are no work.
  if (flow.joins || flow.waits || taken < LEAST_MINUTES) return [];
  const planned = handMinutes(step, entry, { build, pieces: entry?.pieces.length ?? 1, times: 1 });
  if (!(planned > 0)) return [];
  const pace = `pace:${step.kind}` as const;
  const [who] = whoDid(step);
  return [
    {
      id: `minutes:${step.id}`,
      kind: 'minutes',
      ...common(step, last),
      ...(who === undefined ? {} : { who }),
      predicted: planned,
      measured: taken,
      likely: planned * (Math.exp(LIKELY_SD * PACE_SD) - 1),
      rows: [
        {
          y: Math.log(taken / planned),
          a: { [pace]: 1 },
          b: { 'scatter:minutes': 1 },
          g2: 0,
          kind: pace,
          used: { [pace]: Math.log(paceOf(build.shop, step.kind)) },
        },
      ],
    },
  ];
}

import { type BuildDocument, type Edit, type Fix, makerOf, makersOf, type DimensionName } from '../document';
import { settable } from '../plan';
import {
  asGlueUp,
  type GlueStep,
  glueUps,
  heldBack,
  leastSize,
  lengthForSlices,
  pastTurns,
  ripOf,
  rips,
  sliceBefore,
  sliceIds,
  type SliceStep,
  type Timeline,
  trims,
} from '../steps';
import { inputText, lengthText } from '../units';

/** A strip of another wood narrower than this cannot be ripped with a fence by most, mm; common practice. */
export const LEAST_ACCENT_MM = 1.5;

/** The glue-up that makes a dimension out of its parts: the last along it, past any turn. */
const glueAlong = (build: BuildDocument, dimension: DimensionName): GlueStep | undefined =>
  glueUps(build).findLast(({ along, rows }) => along === dimension && !rows);

/** Another wood than those of the lay-up, for a line that is meant to be seen. */
export function accentWood(build: BuildDocument): string {
  const used = new Set(build.assemblies.flatMap(({ slots }) => slots.map(({ species }) => species)));
  return (
    ['walnut_black', 'maple_sugar', 'cherry_black', 'oak_white'].find((wood) => !used.has(wood)) ??
    'walnut_black'
  );
}

/**
 * The strips of a slicing made longer by so much, rounded up to the shop's step. Nothing where they are cut or glued
 * already: a strip does not grow.
 */
export function longerStrips(build: BuildDocument, slice: SliceStep, byMm: number): Edit[] {
  const rip = ripOf(build, makerOf(build, slice.inputs[0] ?? '')?.id ?? '');
  if (!rip || rip.done || byMm <= 0) return [];
  const before = [...makersOf(build, slice.inputs[0] ?? '')];
  const real = new Set(build.readings.map(({ step }) => step));
  if (before.some((each) => (asGlueUp(each) && each.done) || real.has(each.id))) return [];
  return [{ do: 'lengthenStrips', step: rip.id, byMm: settable(build.shop, byMm) }];
}

/** A saw that the kit no longer has takes nothing and is never off: the run says that it is missing. */
const NO_SAW = { kerf: { mm: 0 }, setting: { likely: { mm: 0 } } };
const sawFor = ({ shop }: BuildDocument, { saw }: SliceStep) =>
  shop.saws.find(({ id }) => id === saw) ?? NO_SAW;

/** How far n slices may be off in all, nine times in ten, with as much again to spare, mm. */
const sparing = (build: BuildDocument, slice: SliceStep, count: number): number =>
  2 * count * sawFor(build, slice).setting.likely.mm;

/** The least share of what should stay in hand that may be offered instead. */
const NEARLY_HELD = 0.9;

/** The slices asked for with a little less left in hand than planned, where that is nearly as much. */
export function lessInHand(build: BuildDocument, slice: SliceStep, blankMm: number): Fix[] {
  const kerf = sawFor(build, slice).kerf.mm;
  const hold = blankMm - lengthForSlices(slice.count, { ...slice, hold: { mm: 0 } }, kerf) - kerf;
  if (hold < NEARLY_HELD * heldBack(slice) || hold <= 0) return [];
  return [
    {
      label: `Leave ${lengthText(hold, build.shop.display)} in hand`,
      edit: { do: 'setStep', step: slice.id, change: { hold: { mm: hold } } },
    },
  ];
}

/** What a blank of a slicing lacks for so many slices, what must stay in hand and the stop's own error with them, mm. */
export function blankLacks(
  build: BuildDocument,
  timeline: Timeline,
  slice: SliceStep,
  count: number,
): number {
  const entered = timeline.steps.find(({ id }) => id === slice.id)?.entered ?? [];
  const kerf = sawFor(build, slice).kerf.mm;
  const shortest = leastSize(entered, 'length');
  return lengthForSlices(count, slice, kerf) + sparing(build, slice, count) - shortest;
}

/** Both ends of the last trim take so much more in all, the same off both. */
function evenedEnds(build: BuildDocument, overMm: number): Edit[] {
  const trim = trims(build).at(-1);
  if (!trim || overMm <= 0) return [];
  const change = { start: { mm: trim.start.mm + overMm / 2 }, end: { mm: trim.end.mm + overMm / 2 } };
  return [{ do: 'setStep', step: trim.id, change }];
}

/** More rows of slices for a length that is short: from spares and the blank there is, or from longer strips. */
export function rowWays(build: BuildDocument, timeline: Timeline, glue: GlueStep, shortMm: number): Fix[] {
  const slice = sliceBefore(build, glue);
  const entry = timeline.steps.find(({ id }) => id === glue.id);
  if (!slice || !entry?.laid?.length || shortMm <= 0) return [];
  const own = new Set(timeline.steps.find(({ id }) => id === slice.id)?.pieces.map(({ id }) => id));
  const first = entry.laid.find(({ piece }) => own.has(piece));
  // What lies between the rows would have to grow with them: that is a new plan.
  if (!first || entry.laid.some(({ piece }) => !own.has(piece))) return [];
  const row = first.max[0] - first.min[0];
  if (!(row > 0)) return [];
  const rows = Math.ceil(shortMm / row - 1e-6);
  const evened = evenedEnds(build, rows * row - shortMm);
  const more = `${rows} more ${rows === 1 ? 'slice' : 'slices'}`;
  const blanks = glue.blanks ?? 1;
  const add: Edit = { do: 'addRows', step: glue.id, rows: rows * blanks };
  const out: Fix[] = [];
  const cut = timeline.steps.find(({ id }) => id === slice.id);
  if ((cut?.pieces.length ?? 0) + (slice.spoilt?.length ?? 0) < (cut?.wanted ?? 0)) {
    // The blank is short of the slices already asked for: they come with its length.
    for (const longer of longerStrips(build, slice, blankLacks(build, timeline, slice, slice.count)))
      out.push({ label: 'Make the strips long enough', edit: longer });
    return out;
  }
  out.push({ label: `Lay in ${more}`, edit: { do: 'many', edits: [add, ...evened] } });
  const spare = sliceIds(build, slice).length - entry.laid.length * blanks;
  const extra = Math.max(0, Math.ceil((rows * blanks - Math.max(0, spare)) / Math.max(1, blanks)));
  for (const longer of longerStrips(
    build,
    slice,
    blankLacks(build, timeline, slice, slice.count + Math.max(1, extra)),
  ))
    out.push({
      label: `Longer strips and ${more}`,
      edit: { do: 'many', edits: [longer, add, ...evened] },
    });
  return out;
}

/** A line of another wood in the middle, as wide as what is missing. */
function accentWay(
  build: BuildDocument,
  timeline: Timeline,
  dimension: 'length' | 'width',
  shortMm: number,
): Fix[] {
  const glue = glueAlong(build, dimension);
  const entry = timeline.steps.find(({ id }) => id === glue?.id);
  const [rip] = rips(build);
  const kerf = build.shop.saws.find(({ id }) => id === rip?.saw)?.kerf.mm ?? 0;
  if (!glue || !entry || shortMm < Math.max(kerf, LEAST_ACCENT_MM)) return [];
  const size = entry.greatest;
  const accent = {
    mm: shortMm,
    species: accentWood(build),
    length: dimension === 'length' ? size[1] : size[0],
    thickness: size[2],
  };
  const wide = inputText({ mm: shortMm }, build.shop.display);
  const unit = build.shop.display.system === 'inch' ? 'in' : 'mm';
  return [
    {
      label: `An accent strip of ${wide} ${unit} in the middle`,
      edit: { do: 'addAccent', step: glue.id, accent },
    },
  ];
}

/** Two amounts that are changed by so much in all, as evenly as can be and none below zero; undefined where they cannot. */
export function sharedChange(a: number, b: number, byMm: number): [number, number] | undefined {
  const total = a + b + byMm;
  if (total < -1e-9) return undefined;
  const [x, y] = [a + byMm / 2, b + byMm / 2];
  return x >= 0 && y >= 0 ? [x, y] : [Math.max(0, total) / 2, Math.max(0, total) / 2];
}

/** What could be done about a dimension that came out short. Each is a try: what does not do it is not offered. */
export function waysOut(
  build: BuildDocument,
  timeline: Timeline,
  dimension: DimensionName,
  shortMm: number,
): Fix[] {
  const glue = glueAlong(build, dimension);
  const out: Fix[] = [];
  if (glue && dimension === 'length') out.push(...rowWays(build, timeline, glue, shortMm));
  if (dimension !== 'thickness') out.push(...accentWay(build, timeline, dimension, shortMm));
  const trim = trims(build).at(-1);
  if (trim && dimension !== 'thickness') {
    const [a, b] = dimension === 'length' ? (['start', 'end'] as const) : (['near', 'far'] as const);
    const off = sharedChange(trim[a].mm, trim[b].mm, -shortMm);
    if (off) {
      const even = (off[0] + off[1]) / 2;
      out.push({
        label: 'Trim less, the same off both sides',
        edit: { do: 'setStep', step: trim.id, change: { [a]: { mm: even }, [b]: { mm: even } } },
      });
    }
  }
  if (glue && dimension === 'width') out.push(...widerStrips(build, glue, shortMm));
  return out;
}

/** The strips of a lay-up ripped wider, so that together they give what is missing. */
function widerStrips(build: BuildDocument, glue: GlueStep, shortMm: number): Fix[] {
  const rip = ripOf(build, glue.id);
  const slots = build.assemblies.find(({ id }) => id === rip?.assembly)?.slots ?? [];
  const real = new Set(build.readings.map(({ step }) => step));
  const made = [...makersOf(build, glue.output)];
  if (!rip || slots.length === 0 || made.some(({ id, done }) => done || real.has(id))) return [];
  const each = settable(build.shop, shortMm / Math.max(1, slots.length / (glue.blanks ?? 1)));
  return [
    {
      label: 'Rip the strips wider',
      edit: {
        do: 'many',
        edits: slots.map((slot) => ({
          do: 'setSlot',
          step: rip.id,
          strip: slot.id,
          change: { width: { mm: slot.width.mm + each } },
        })),
      },
    },
  ];
}

/** The glue-up whose rows a slicing gives, past turns; undefined where its slices go elsewhere. */
export const rowsGlueOf = (build: BuildDocument, slice: SliceStep): GlueStep | undefined =>
  glueUps(build).find(
    ({ along, rows, inputs }) =>
      along === 'length' && !rows && inputs.some((input) => pastTurns(build, input)?.id === slice.id),
  );

/** Planning it anew, where it has a brief: with the shop's allowances, or with those it has of its own. */
export const planAgain = ({ brief }: BuildDocument): Fix[] =>
  brief
    ? [
        {
          label: `Plan again with ${Object.keys(brief.allowances ?? {}).length > 0 ? 'this job’s' : 'the shop’s'} allowances`,
          edit: { do: 'replan' },
        },
      ]
    : [];

import type { BreakdownSettings } from '../document';
import type { ShopSnapshot } from '../kit';
import { type Display, falling, INCH, inTurn, lengthText, rising } from '../units';
import { rulesOf } from './demand';
import type { BoardLayout, LaidStrip } from './layout';

export type CutKind = 'clean end' | 'crosscut' | 'clean edge' | 'rip' | 'resaw' | 'to length';

/** One setting of one machine and everything that is cut at it. */
export interface SetUp {
  kind: CutKind;
  saw: string;
  /** Fence or stop distance, mm; undefined where a cut is made by eye. */
  distance?: number;
  measuredBy: 'stop' | 'fence' | 'tape' | 'eye';
  /** How high the blade stands over the table, mm. */
  bladeHeight: number;
  /** Which edge or end lies against the fence or stop. */
  against: string;
  /** Pieces that come out, and what is pencilled on them. */
  pieces: { board: string; labels: string[] }[];
  count: number;
  caution?: string;
}

/** How far a blade stands above the wood: enough for the gullets to clear (common practice; the manual comes first). */
const BLADE_OVER_MM = INCH / 8;
/** Rips narrower than this need a push block, and thin ones go on the blade's far side (common practice). */
const NARROW_RIP_MM = 2 * INCH;
const THIN_RIP_MM = 0.75 * INCH;
/** Shorter pieces are not ripped at a fence nor fed by hand (common practice). */
const SHORT_RIP_MM = 12 * INCH;
const TALL_RESAW_MM = 6 * INCH;

/** A cut without a distance comes after those that have one. */
const BY_EYE = 0;
const ORDER: readonly CutKind[] = ['clean end', 'crosscut', 'clean edge', 'rip', 'resaw', 'to length'];

interface Cut {
  kind: CutKind;
  distance?: number;
  thickness: number;
  board: string;
  label: string;
  length: number;
  width: number;
}

/**
 * Every cut of a board, in the order in which it goes through the machines. What is cut away to get past a fault or
 * to leave an offcut whole is measured; what only cleans an end or an edge is done by eye.
 */
function cutsOf(
  layout: BoardLayout,
  settings: BreakdownSettings,
  kerfs: Kerfs,
  labelOf: (strip: string) => string,
): Cut[] {
  const { board, sections } = layout;
  const cuts: Cut[] = [];
  const thickness = board.thickness.mm;
  const at = { board: board.label, thickness };
  const all = (lanes: LaidStrip[][]) =>
    lanes
      .flat()
      .map((laid) => labelOf(laid.strip.id))
      .join(' ');
  /** The piece a first cut takes away: none, just enough to clean, or a measured length. */
  const away = (gap: number, kerf: number, clean: number) =>
    gap <= 1e-6 ? undefined : { distance: gap > clean + kerf + 1e-6 ? gap - kerf : undefined };
  let end = 0;
  sections.forEach((section, i) => {
    const from = `section ${i + 1}`;
    const size = { length: section.length, width: board.width.mm };
    const first = away(section.x - end, kerfs.crosscut, settings.endTrim.mm);
    if (first) cuts.push({ ...at, ...size, kind: 'clean end', ...first, label: from });
    cuts.push({
      ...at,
      ...size,
      kind: 'crosscut',
      distance: section.length,
      label: `${from} (${all(section.lanes)})`,
    });
    end = section.x + section.length + kerfs.crosscut;
    let edge = 0;
    for (const lane of section.lanes) {
      const [laid] = lane;
      const label = lane.map((one) => labelOf(one.strip.id)).join(' + ');
      const strip = { ...at, length: section.length, width: laid.width };
      const side = away(laid.y - edge, kerfs.rip, settings.edgeTrim.mm);
      if (side) cuts.push({ ...strip, kind: 'clean edge', ...side, label });
      if (!(laid.y <= 1e-6 && laid.width >= board.width.mm - 1e-6))
        cuts.push({ ...strip, kind: 'rip', distance: laid.width, label });
      edge = laid.y + laid.width + kerfs.rip;
      if (laid.place.leaves > 1)
        cuts.push({
          ...strip,
          kind: 'resaw',
          distance: laid.strip.thickness,
          label,
          thickness: laid.width,
        });
      if (laid.strip.length < section.length - 1e-6)
        cuts.push({ ...strip, kind: 'to length', distance: laid.strip.length, label });
    }
  });
  return cuts;
}

interface Kerfs {
  crosscut: number;
  rip: number;
}

const AGAINST: Record<CutKind, string> = {
  'clean end': 'near edge to the fence, marked end first',
  crosscut: 'near edge to the fence, clean end to the stop',
  'clean edge': 'far edge to the fence: straighten the near edge',
  rip: 'clean edge to the fence',
  resaw: 'flat face to the fence, clean edge down',
  'to length': 'clean edge to the fence, clean end to the stop',
};

const MACHINE: Record<CutKind, 'crosscutSaw' | 'ripSaw' | 'resawSaw'> = {
  'clean end': 'crosscutSaw',
  crosscut: 'crosscutSaw',
  'clean edge': 'ripSaw',
  rip: 'ripSaw',
  resaw: 'resawSaw',
  'to length': 'crosscutSaw',
};

function measuredBy({ kind, distance }: Cut): SetUp['measuredBy'] {
  if (distance === undefined) return 'eye';
  if (kind === 'rip' || kind === 'resaw') return 'fence';
  return kind === 'crosscut' || kind === 'to length' ? 'stop' : 'tape';
}

function cautionFor(cut: Cut, remnantMm: number, display: Display): string | undefined {
  const text = (mm: number) => lengthText(mm, display);
  const first = 'The saw’s manual and local rules come first.';
  if ((cut.kind === 'rip' || cut.kind === 'clean edge') && cut.length < SHORT_RIP_MM)
    return `${text(cut.length)} is short for ripping at a fence: a short piece can turn and be thrown back. Rip it from a longer piece, or use a sled with hold-downs. ${first}`;
  if (cut.kind === 'rip' && (cut.distance ?? 0) < THIN_RIP_MM)
    return `A strip of ${text(cut.distance ?? 0)} can be drawn into the blade slot or thrown back. Cut it on the blade’s far side against a stop, with a zero-clearance insert and a push block. ${first}`;
  if (cut.kind === 'rip' && (cut.distance ?? 0) < NARROW_RIP_MM)
    return `${text(cut.distance ?? 0)} brings the hand near the blade: push block, riving knife in place, never fingers beside the blade. ${remnantMm > 0 ? `At least ${text(remnantMm)} stays at the fence.` : ''} ${first}`.replace(
      '  ',
      ' ',
    );
  if (cut.kind === 'resaw' && cut.width > TALL_RESAW_MM)
    return `A cut ${text(cut.width)} tall wanders and binds: tall fence, sharp wide blade, slow feed, and allow for the wander. ${first}`;
  if ((cut.kind === 'crosscut' || cut.kind === 'to length') && (cut.distance ?? 0) < SHORT_RIP_MM / 2)
    return `${text(cut.distance ?? 0)} is short: clamp it or hold it with a block, and use a stop that lets the piece free after the cut. ${first}`;
  return undefined;
}

/**
 * The cuts of a breakdown by setting: each fence or stop is set once, in the order of the work and from the greatest
 * distance to the least, so that long and wide pieces come first. `labelOf` names a strip as it is pencilled.
 */
export function setUpList(
  layouts: readonly BoardLayout[],
  settings: BreakdownSettings,
  shop: ShopSnapshot,
  labelOf: (strip: string) => string,
): SetUp[] {
  const { crosscutKerf: crosscut, ripKerf: rip } = rulesOf(settings, shop);
  const groups = new Map<string, Cut[]>();
  for (const cut of layouts.flatMap((layout) => cutsOf(layout, settings, { crosscut, rip }, labelOf))) {
    // A face of another height needs another blade height: it is another setting.
    const key = [cut.kind, cut.distance?.toFixed(3), cut.thickness.toFixed(2)].join('|');
    groups.set(key, [...(groups.get(key) ?? []), cut]);
  }
  const list = [...groups.values()].map((cuts): SetUp => {
    const [first] = cuts;
    const byBoard = new Map<string, string[]>();
    for (const cut of cuts) byBoard.set(cut.board, [...(byBoard.get(cut.board) ?? []), cut.label]);
    const cautions = cuts.map((cut) => cautionFor(cut, settings.remnant.mm, shop.display));
    return {
      kind: first.kind,
      saw: shop.saws.find(({ id }) => id === settings[MACHINE[first.kind]])?.name ?? 'saw',
      distance: first.distance,
      measuredBy: measuredBy(first),
      bladeHeight: first.thickness + BLADE_OVER_MM,
      against: AGAINST[first.kind],
      pieces: [...byBoard].map(([board, labels]) => ({ board, labels })),
      count: cuts.length,
      caution: cautions.find((text) => text !== undefined),
    };
  });
  return list.toSorted(
    inTurn(
      rising(({ kind }) => ORDER.indexOf(kind)),
      falling(({ distance = BY_EYE }) => distance),
      falling(({ bladeHeight }) => bladeHeight),
    ),
  );
}

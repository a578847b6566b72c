import { type BuildDocument, usersOf } from '../document';
import {
  asTrim,
  comesTurned,
  type GlueStep,
  glueUps,
  lengthForSlices,
  sliceBefore,
  slicesFrom,
  type SliceStep,
} from '../steps';
import { countNeeded } from '../units';

/** A panel that is there already, as measured, mm. */
export interface PanelOnHand {
  length: number;
  thickness: number;
}

/** What a panel on hand gives of a pattern of rows, and what would have to change. Sizes in mm. */
export interface OnHand {
  /** Slices the panel gives with this saw, head and hold; and those the finished length needs. */
  slices: number;
  needed: number;
  /** Length of the finished piece that these slices give. */
  finished: number;
  /** Thickness at which the planned number of rows makes the length: what keeps the pattern. */
  keepsPattern: number;
  /** How much longer the panel must be for all the slices needed; zero where it is long enough. */
  longer: number;
}

/** The slicing and the glue-up of a pattern of rows; undefined where it has none. */
export function rowsOf(build: BuildDocument): { slice: SliceStep; glue: GlueStep } | undefined {
  const glue = glueUps(build).findLast(({ along, rows }) => along === 'length' && !rows);
  const slice = glue && sliceBefore(build, glue);
  return glue && slice ? { slice, glue } : undefined;
}

/**
 * Plans from a panel on hand instead of one to be glued. Rows are as high as the panel is thick when slices stand on
 * end, else as thick as the slices. Counts with the tolerance of core/units/count. Undefined for patterns without rows.
 */
export function fromPanel(build: BuildDocument, panel: PanelOnHand): OnHand | undefined {
  const found = rowsOf(build);
  const target = build.targets[0]?.length.value?.mm;
  if (!found || target === undefined || !(panel.length > 0) || !(panel.thickness > 0)) return undefined;
  const { slice, glue } = found;
  const kerf = build.shop.saws.find(({ id }) => id === slice.saw)?.kerf.mm ?? 0;
  const stands = comesTurned(build, glue.inputs[0] ?? '');
  const row = stands ? panel.thickness : slice.thickness.mm;
  // Trims of what the rows are made into; those of panels before are none of its length.
  const trimmed = [...usersOf(build, glue.output)].reduce((sum, step) => {
    const trim = asTrim(step);
    return sum + (trim ? trim.start.mm + trim.end.mm : 0);
  }, 0);
  const ends = Math.min(trimmed, 2 * build.shop.allowances.trimEnd.mm);
  const slices = slicesFrom(panel.length, slice, kerf);
  const needed = countNeeded((target + ends) / row);
  const planned = (glue.parts?.length ?? slice.count) / (glue.blanks ?? 1);
  return {
    slices,
    needed,
    finished: Math.max(0, slices * row - ends),
    keepsPattern: stands ? (target + ends) / planned : panel.thickness,
    longer: Math.max(0, lengthForSlices(needed, slice, kerf) - panel.length),
  };
}

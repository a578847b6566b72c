import type { BuildDocument, Edit, StepKind } from '../document';
import { sawDoes } from '../kit';
import { type GrainRun, STEP_ROOMS } from '../steps';
import type { Length } from '../units';

/** What a new line begins with, as a maker enters it. */
export interface LineEntry {
  name: string;
  species: string;
  count: number;
  length: Length;
  /** Of pieces alike. */
  width: Length;
  /** Of strips, one after the other. */
  widths: Length[];
  thickness: Length;
  grainAlong: GrainRun;
}

/** Whether a line begins with strips that are ripped one by one, or with pieces alike that are there. */
export const beginsWithStrips = (kind: string): boolean =>
  STEP_ROOMS.some((room) => room.kind === kind && 'assembly' in room.fields);

/** What to begin with when a new line is asked for: wood and sizes like the strips there are, else a plain board. */
export function usualLine({ assemblies, shop }: BuildDocument): LineEntry {
  const like = assemblies.at(-1)?.slots[0];
  const inch = shop.display.system === 'inch';
  const width = like?.width ?? { mm: inch ? 50.8 : 50 };
  return {
    name: 'Strips',
    species: like?.species ?? 'maple_sugar',
    count: 4,
    length: like?.length ?? { mm: inch ? 609.6 : 600 },
    width,
    widths: Array.from({ length: 4 }, () => width),
    thickness: like?.thickness ?? { mm: inch ? 25.4 : 25 },
    grainAlong: 'length',
  };
}

/** The edit that begins a line as it was entered. */
export function lineEdit({ shop }: BuildDocument, kind: string, entry: LineEntry): Edit {
  const { name, species, count, length, width, widths, thickness, grainAlong } = entry;
  if (!beginsWithStrips(kind))
    return {
      do: 'addLine',
      kind: kind as StepKind,
      settings: { name: name.trim() || undefined, species, count, length, width, thickness, grainAlong },
    };
  const saw = shop.saws.find((each) => sawDoes(each, 'rip')) ?? shop.saws[0];
  return {
    do: 'addLine',
    kind: kind as StepKind,
    name: name.trim() || 'Strips',
    settings: { saw: saw?.id ?? '', fence: 'shared' },
    slots: widths.map((each) => ({ id: '', species, length, width: each, thickness })),
  };
}

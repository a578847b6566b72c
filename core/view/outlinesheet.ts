import { areaOf, type Box2, boxOf, lengthOf } from '../curve';
import type { Phrase } from '../document';
import { bentWrong, blankFor, drawnOutline, largestOutline, type ShapeStep } from '../steps';
import { pathOf } from './featuresheet';

/** An outline as a window draws and judges it, on a piece of a size. mm. */
export interface OutlineSheet {
  /** As a path of an SVG, y turned down over the piece’s width; missing where it is none, and then why. */
  path?: string;
  refused?: Phrase[];
  /** What it fills. */
  box?: Box2;
  /** Its own length and width, the length of its line, mm, and its area, mm2. */
  length?: number;
  width?: number;
  line?: number;
  area?: number;
  /** The least blank it can be sawn from, with what is left for the cutter. */
  needs?: { length: number; width: number };
  /** How far it reaches past the piece, with what is left for the cutter; nothing where it lies inside. */
  past?: number;
}

/** What an outline makes of a piece so long and wide (thick, seen from its edge). */
export function outlineSheet(
  { outline, larger, cleanUp }: Pick<ShapeStep, 'outline' | 'larger' | 'cleanUp'>,
  [long, wide]: readonly [number, number],
): OutlineSheet {
  if (!outline) return {};
  const wrong = bentWrong(outline);
  if (wrong) return { refused: wrong.words };
  const loop = drawnOutline({ outline, ...(larger ? { larger } : {}) });
  if (!loop)
    return {
      refused: [
        larger && larger.mm < 0 && drawnOutline({ outline })
          ? 'Drawn so much smaller, the outline comes apart, or nothing is left of it.'
          : 'The outline crosses itself, or has no area.',
      ],
    };
  const needs = blankFor({ outline, ...(larger ? { larger } : {}) }, cleanUp?.mm);
  const own = blankFor({ outline, ...(larger ? { larger } : {}) });
  const clean = cleanUp?.mm ?? 0;
  const { x0, y0, x1, y1 } = boxOf([loop]);
  const past = Math.max(0, clean - x0, clean - y0, x1 + clean - long, y1 + clean - wide);
  return {
    path: pathOf([loop], wide),
    box: { x0, y0, x1, y1 },
    length: own?.length ?? 0,
    width: own?.width ?? 0,
    line: lengthOf(loop),
    area: areaOf([loop]),
    ...(needs ? { needs } : {}),
    ...(past > 1e-6 ? { past } : {}),
  };
}

/** The largest of a step’s outline that a piece gives: lying as drawn, and turned where that gives more. */
export function largestOf(
  { outline, cleanUp }: Pick<ShapeStep, 'outline' | 'cleanUp'>,
  [length, width]: readonly [number, number],
): { lying?: ReturnType<typeof largestOutline>; turned?: ReturnType<typeof largestOutline> } {
  if (!outline) return {};
  const size = { length, width, cleanUpMm: cleanUp?.mm ?? 0 };
  const lying = largestOutline(outline, { ...size, turned: false });
  const turned = largestOutline(outline, { ...size, turned: true });
  return {
    ...(lying ? { lying } : {}),
    ...(lying && turned && turned.scale > lying.scale * 1.001 ? { turned } : {}),
  };
}

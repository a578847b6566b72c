import { boxOf, type Region, sidesOf } from '../curve';
import type { BuildDocument, Phrase } from '../document';
import { featureReport, finishedRegion, LEAST_WALL, methodOf, type StepReport } from '../shaping';
import {
  AXES_OF,
  asFeatures,
  featureName,
  groundOf,
  kindOf,
  type PieceSide,
  SIDES_OF_PIECE,
  sideOf,
  type SideSize,
  type Spot,
  type Timeline,
  type WorkPiece,
  laterTrims,
} from '../steps';
import { balancePoint, blankVolumes, toOrigin } from '../solid';
import { counted, sumOf } from '../units';
import { density, findSpecies } from '../wood';

/** A side of the piece as it is drawn: how long and wide, the finished edge on it, and where joints cross it, mm. */
export interface SideSheet {
  side: PieceSide;
  name: string;
  long: number;
  wide: number;
  deep: number;
  /** What later trims take off: low and high along it, and across. */
  trims: { u: readonly [number, number]; v: readonly [number, number] };
  /** The finished edge as a path of an SVG, v upwards turned down. */
  finished: string;
  joints: { u: number[]; v: number[] };
}

/** A feature as it is listed and drawn. */
export interface FeatureRow {
  id: string;
  name: string;
  kind: string;
  side: PieceSide;
  /** Its first place: from the finished edge and from the blank's, along and across. */
  fromFinished?: Spot;
  fromBlank?: Spot;
  count: number;
  /** Each place as a path, with its middle, and the box it fills, mm. */
  drawn: { at: Spot; path: string; deep: number; box: { x0: number; y0: number; x1: number; y1: number } }[];
  /** What is left around it, in a few words each. */
  left: Phrase[][];
  /** How it is made, a line each. */
  method: Phrase[][];
  refused?: Phrase[];
}

/** The features of a step, as a window draws them. */
export interface FeatureSheet {
  step: string;
  sides: SideSheet[];
  features: FeatureRow[];
  /** Of the first piece after it: how heavy it is, and where it balances, mm from its left end and near edge. */
  after?: { kg: number; along: number; across: number };
}

/** How heavy a piece is once it is cut, and where it balances. */
function weighed(piece: WorkPiece | undefined): FeatureSheet['after'] {
  if (!piece) return undefined;
  const blank = toOrigin(piece.blank);
  const perMm3 = (id: string): number => {
    const species = findSpecies(id);
    return species ? density(species) * 1e-9 : 0;
  };
  const at = balancePoint(blank, ({ origin }) => perMm3(origin.species));
  const kg = sumOf(Object.entries(blankVolumes(blank)), ([id, mm3]) => perMm3(id) * mm3);
  return at && { kg, along: at[0], across: at[1] };
}

const n = (value: number): string => String(Math.round(value * 1000) / 1000);

/** A region as a path of an SVG whose y runs down, on a side so wide. */
export function pathOf(region: Region, wide: number): string {
  return region
    .map((loop) => {
      const sides = sidesOf(loop);
      if (sides.length === 0) return '';
      const to = sides.map(({ b, arc }) => {
        if (!arc) return `L${n(b.x)} ${n(wide - b.y)}`;
        const large = Math.abs(arc.sweep) > Math.PI ? 1 : 0;
        return `A${n(arc.r)} ${n(arc.r)} 0 ${large} ${arc.sweep > 0 ? 0 : 1} ${n(b.x)} ${n(wide - b.y)}`;
      });
      return `M${n(sides[0].a.x)} ${n(wide - sides[0].a.y)}${to.join('')}Z`;
    })
    .join('');
}

/** What is left around a feature, in words. */
function leftAround(report: StepReport['features'][number], names: ReadonlyMap<string, string>): Phrase[][] {
  const { wall, floor, nearest, joints, passes, bit, depth, laid } = report;
  const out: Phrase[][] = [];
  if (wall) out.push(['wall ', { mm: wall.mm }]);
  if (floor !== undefined) out.push(['floor ', { mm: floor }]);
  else if (depth > 0) out.push(['right through']);
  if (nearest && nearest.mm < 4 * LEAST_WALL)
    out.push([
      { mm: nearest.mm },
      nearest.other === laid.feature.id
        ? ' to the next of its row'
        : ` to ${(names.get(nearest.other) ?? '').toLowerCase()}`,
    ]);
  if (joints.crosses > 0) out.push([`crosses ${counted(joints.crosses, 'joint')}`]);
  else if (joints.clears !== undefined) out.push(['clears a joint by ', { mm: joints.clears }]);
  if (bit)
    out.push([
      bit.name.toLowerCase() + (passes && passes > 1 ? `, ${counted(passes, 'pass', 'passes')}` : ''),
    ]);
  return out;
}

/** The features of a step as they lie on what enters it; undefined for another step, or one that was not played. */
export function featureSheet(
  build: BuildDocument,
  timeline: Timeline,
  stepId: string,
): FeatureSheet | undefined {
  const step = asFeatures(build.steps.find(({ id }) => id === stepId));
  const entry = timeline.steps.find(({ id }) => id === stepId);
  const [piece] = entry?.entered ?? [];
  if (!step || !entry || !piece) return undefined;
  const report = featureReport(build, step, entry) as StepReport;
  const trims =
    step.edges === 'finished'
      ? laterTrims(build, step.output, report.size)
      : { upper: 0, lower: 0, near: 0, far: 0, left: 0, right: 0 };
  const ground = groundOf(piece.blank, trims);
  const lines = ground.joints();
  const names = new Map(step.features.map((each) => [each.id, featureName(each)]));
  const sides = SIDES_OF_PIECE.map(({ value, label }): SideSheet => {
    const known = report.features.find(({ laid }) => laid.feature.side === value);
    const side: SideSize = known?.laid.side ?? sideOf(value, report.size, trims);
    const [u, v] = AXES_OF[value];
    return {
      side: value,
      name: label,
      long: side.long,
      wide: side.wide,
      deep: side.deep,
      trims: { u: side.trims.u, v: side.trims.v },
      finished: pathOf(finishedRegion({ side }), side.wide),
      joints: { u: lines[u], v: lines[v] },
    };
  });
  const after = weighed(entry.pieces[0]);
  return {
    step: step.id,
    sides,
    features: report.features.map((each) => rowOf(each, names)),
    ...(after ? { after } : {}),
  };
}

function rowOf(each: StepReport['features'][number], names: ReadonlyMap<string, string>): FeatureRow {
  const { laid } = each;
  const { feature, side, spots, cuts, refused } = laid;
  const placed = kindOf(feature).placed && spots[0];
  return {
    id: feature.id,
    name: featureName(feature),
    kind: feature.kind,
    side: feature.side,
    count: kindOf(feature).placed ? spots.length : 1,
    ...(placed
      ? {
          fromBlank: placed,
          fromFinished: { u: placed.u - side.trims.u[0], v: placed.v - side.trims.v[0] },
        }
      : {}),
    drawn: spots.map((at, i) => {
      const region = cuts[i].flatMap((cut) => cut.region);
      const { x0, y0, x1, y1 } = boxOf(region);
      return {
        at,
        path: pathOf(region, side.wide),
        deep: Math.max(0, ...cuts[i].map(({ to }) => to)),
        box: { x0, y0, x1, y1 },
      };
    }),
    left: leftAround(each, names),
    method: methodOf(each),
    ...(refused ? { refused: refused.words } : {}),
  };
}

import type { StepBase } from '../../document';
import { bookVolumes, emptyLedger, type Ledger, takeOut, toOrigin } from '../../solid';
import type { Need } from '../../kit';
import { type Outcome, type RunContext, stopAt } from '../context';
import type { StepRoom } from '../room';
import type { WorkPiece } from '../timeline';
import type { Feature } from './model';
import { formOf, plugOf } from './frame';
import { bitKindsOf, kindOf } from './kinds';
import { groundOf, layFeatures, type LaidFeature } from './lay';
import { MOST_SPOTS } from './place';
import { counted, sumOf } from '../../units';

/** Holes, grooves, openings and shaped edges cut into every piece. */
export interface FeatureStep extends StepBase {
  kind: 'feature';
  features: Feature[];
  /** Edges that places are measured from: as they will be once later trims are done, or as they lie now. */
  edges: 'finished' | 'now';
}

/** The most features one step holds. */
export const MOST_FEATURES = 100;

const NO_TRIMS = { upper: 0, lower: 0, near: 0, far: 0, left: 0, right: 0 };

/** The features of a step as they lie on a piece that enters it. */
export const laidOn = (
  step: FeatureStep,
  piece: WorkPiece,
  context: Pick<RunContext, 'laterTrims' | 'outlineBefore'>,
): LaidFeature[] => {
  const blank = toOrigin(piece.blank);
  const ground = groundOf(blank, NO_TRIMS, context.outlineBefore(step));
  const trims = step.edges === 'finished' ? context.laterTrims(step.output, ground.size) : NO_TRIMS;
  return layFeatures(step.features, { ...ground, trims });
};

/** What a feature is called in words: its own name, or its kind's. */
export const featureName = (feature: Feature): string => feature.name ?? kindOf(feature).name;

/** Cuts every feature into every piece; one that cannot be is left out, and a note says why. */
export function runFeature(step: FeatureStep, inputs: readonly WorkPiece[], context: RunContext): Outcome {
  let lost: Ledger = emptyLedger();
  const pieces: WorkPiece[] = [];
  for (const [n, piece] of inputs.entries()) {
    const laid = laidOn(step, piece, context);
    const count = sumOf(laid, ({ spots }) => spots.length);
    if (count > MOST_SPOTS)
      return stopAt(
        step,
        'too-many-features',
        [`These are ${count} cuts in one piece; Junta plans up to ${MOST_SPOTS} in a step.`],
        { numbers: { count, most: MOST_SPOTS } },
      );
    let blank = toOrigin(piece.blank);
    for (const { feature, frame, cuts, refused } of laid) {
      if (refused && n === 0)
        context.notes.push({
          code: 'feature-not-cut',
          step: step.id,
          severity: 'warning',
          message: [`${featureName(feature)} is not cut: `, ...refused.words],
          numbers: refused.numbers,
          fixes: [],
        });
      for (const cut of cuts.flat()) {
        const plug = plugOf(cut, frame);
        const taken = takeOut(blank, `${step.id}.${feature.id}`, {
          form: formOf(cut, frame),
          toForm: frame.toForm,
          ...(plug ? { plug } : {}),
        });
        blank = taken.blank;
        const chips = Object.fromEntries(
          Object.entries(taken.lost).map(([id, mm3]) => [id, mm3 - (taken.plug[id] ?? 0)]),
        );
        lost = bookVolumes(bookVolumes(lost, 'chips', chips), 'offcut', taken.plug);
      }
    }
    if (blank.cells.length === 0)
      return stopAt(step, 'nothing-left', ['Nothing is left of the piece after these cuts.'], {
        numbers: { left: 0, features: step.features.length },
      });
    pieces.push({ ...piece, blank });
  }
  return { pieces, lost };
}

/** Cutters and drills that the features want, each once. */
function needsOf({ features }: FeatureStep): Need[] {
  const list = features.flatMap((feature): Need[] => {
    const { bitMm } = kindOf(feature);
    const bits = bitKindsOf(feature);
    if (feature.bit || bits.length === 0) return [];
    const mm = bitMm?.(feature);
    return [{ what: 'bit', kind: bits[0], ...(mm === undefined ? {} : { diameterMm: mm }) }];
  });
  return list.filter(
    (need, i) => !list.slice(0, i).some((other) => JSON.stringify(other) === JSON.stringify(need)),
  );
}

/** The room of features. */
export const feature: StepRoom<FeatureStep> = {
  kind: 'feature',
  name: 'Bore and rout',
  group: 'Shape',
  says: 'Cuts holes, grooves, recesses, openings, hand holds, tenons and shaped edges, each at its place.',
  subtitle: ({ features }) =>
    features.length === 0
      ? 'nothing planned yet: sizes pass through'
      : [...new Set(features.map(featureName))].slice(0, 3).join(', ').toLowerCase(),
  fields: {
    edges: {
      is: 'choice',
      label: 'Places are measured from',
      options: [
        { value: 'finished', label: 'Finished edges' },
        { value: 'now', label: 'Edges as they lie' },
      ],
      carried: true,
    },
    features: { is: 'list', label: 'What is cut', most: MOST_FEATURES, of: { is: 'feature' }, carried: true },
  },
  flow: {},
  begin: () => ({ features: [], edges: 'finished' }),
  run: runFeature,
  took: () => [],
  ownIds: ({ features }) => ({ features }),
  looksAround: true,
  keepsOutline: true,
  needsSettled: true,
  operations: ({ features }) => [
    { instead: 'features', say: [`Bore and rout ${counted(features.length, 'feature')}.`] },
  ],
  labour: {
    setUp: 10,
    each: 0,
    more: ({ features }) => sumOf(features, (each) => minutesOf(each)),
  },
  needs: needsOf,
  caution:
    'Eyes and ears protected; the cutter is sharp and tight, the work clamped. The machine’s manual comes first.',
};

/** Minutes for one feature with its rows, set up once: a guess (common practice). */
const minutesOf = ({ row, kind }: Feature): number => {
  const each = kindOf({ kind }).by === 'drill' ? DRILL_MIN : CUT_MIN;
  return SET_UP_MIN + (row ? (row.count ?? ROW_COUNT) * each : each);
};
const [SET_UP_MIN, DRILL_MIN, CUT_MIN] = [6, 1, 4];
/** So many a row is taken to have that says its pitch instead. */
const ROW_COUNT = 4;

declare module '../../document/step' {
  interface StepKinds {
    feature: FeatureStep;
  }
}

declare module '../../document/finding' {
  interface FindingCodes {
    /** More cuts in one step than Junta plans. */
    'too-many-features': true;
    /** A feature that cannot be cut as it stands. */
    'feature-not-cut': true;
  }
}

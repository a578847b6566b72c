import { rising } from '../units';
import type { Finding, Step } from '../document';
import { featureReport, LEAST_WALL } from '../shaping';
import { asFeatures, featureName, type FeatureStep, kindOf } from '../steps';
import type { ReviewContext } from './context';
import { CUTTER_LOOKS } from './featurecutters';
import { changed, depthOf, finding, type Look, moves, SAME, shallower } from './featurelook';

/** It lies beside the wood, breaks out of it, or leaves too thin a wall. */
const walls: Look = ({ laid, beside, wall }, at, { step, stepMm }) => {
  const { feature } = laid;
  const name = featureName(feature);
  if (beside)
    return [
      finding(step, at, 'feature-beside', {
        message: [`${name} lies beside the piece: it takes no wood.`],
        numbers: { length: laid.side.long, width: laid.side.wide },
        fixes: [
          {
            label: `Put ${name.toLowerCase()} in the middle`,
            edit: changed(step, feature.id, {
              u: { from: 'middle', by: { mm: 0 } },
              v: { from: 'middle', by: { mm: 0 } },
            }),
          },
        ],
      }),
    ];
  if (!wall || wall.mm >= LEAST_WALL - SAME) return [];
  const need = LEAST_WALL - wall.mm;
  const out = wall.mm < -SAME;
  return [
    finding(step, at, out ? 'feature-breaks-out' : 'feature-thin-wall', {
      message: out
        ? [`${name} breaks out of the finished edge by `, { mm: -wall.mm }, '.']
        : [
            `${name} leaves a wall of `,
            { mm: wall.mm },
            ' to the finished edge; ',
            { mm: LEAST_WALL },
            ' should stay.',
          ],
      numbers: { wall: wall.mm, least: LEAST_WALL },
      fixes: moves(step, feature, need, stepMm),
    }),
  ];
};

/** It goes deeper than the wood, or leaves too thin a floor. */
const floors: Look = ({ laid, floor }, at, { step }) => {
  const { feature, side } = laid;
  const name = featureName(feature);
  const asked = depthOf(feature);
  if (asked !== undefined && asked > side.deep + SAME && feature.kind !== 'handHold')
    return [
      finding(step, at, 'feature-too-deep', {
        message: [
          `${name} is `,
          { mm: asked },
          ' deep, and the piece ',
          { mm: side.deep },
          ': it comes out by ',
          { mm: asked - side.deep },
          '.',
        ],
        numbers: { depth: asked, thickness: side.deep, over: asked - side.deep },
        fixes: shallower(step, feature, asked - side.deep + LEAST_WALL),
      }),
    ];
  if (floor === undefined || floor >= LEAST_WALL - SAME) return [];
  return [
    finding(step, at, 'feature-thin-floor', {
      message: [`${name} leaves a floor of `, { mm: floor }, '; ', { mm: LEAST_WALL }, ' should stay.'],
      numbers: { floor, least: LEAST_WALL },
      fixes: shallower(step, feature, LEAST_WALL - floor),
    }),
  ];
};

/** It meets another feature, or leaves too little wood between. */
const bridges: Look = ({ laid, nearest }, at, { step, all, stepMm }) => {
  if (!nearest || nearest.mm >= LEAST_WALL - SAME) return [];
  const { feature } = laid;
  const k = all.findIndex((each) => each.laid.feature.id === nearest.other);
  // Each pair once, told where the later of the two is.
  if (k > at || (k < at && all[k]?.nearest?.other === feature.id && all[k].nearest.mm < nearest.mm - SAME))
    return [];
  const other = all[k].laid.feature;
  const own = k === at;
  const name = featureName(feature);
  const both = own ? `Two of ${name.toLowerCase()}` : `${name} and ${featureName(other).toLowerCase()}`;
  // Grooves cross on purpose, and profiles run into what they follow.
  const meant =
    ['groove', 'edge', 'juice'].includes(feature.kind) && ['groove', 'edge', 'juice'].includes(other.kind);
  if (meant && nearest.mm < SAME) return [];
  const need = LEAST_WALL - nearest.mm;
  const meets = nearest.mm < -SAME;
  return [
    finding(step, at, meets ? 'features-meet' : 'features-near', {
      message: meets
        ? [`${both} meet: one reaches into the other by `, { mm: -nearest.mm }, '.']
        : [
            `${both} leave `,
            { mm: Math.max(0, nearest.mm) },
            ' of wood between them; ',
            { mm: LEAST_WALL },
            ' should stay.',
          ],
      numbers: { bridge: nearest.mm, least: LEAST_WALL, other: k },
      fixes: own
        ? []
        : [
            ...shallower(step, feature, need),
            ...shallower(step, other, need),
            ...moves(step, feature, 1.5 * need, stepMm),
          ],
    }),
  ];
};

/** A hole or a mortise that lands on a joint. */
const onJoints: Look = ({ laid, joints }, at, { step, stepMm }) => {
  const { feature } = laid;
  const { into, crosses } = joints;
  if (kindOf(feature).crosses || !into || into.mm < SAME) return [];
  const name = featureName(feature);
  return [
    finding(step, at, 'feature-on-joint', {
      message: [
        `${name} lands on ${crosses === 1 ? 'a joint' : `${crosses} joints`}: it reaches `,
        { mm: into.mm },
        ' past it. Moved, the joint stays whole.',
      ],
      numbers: { into: into.mm, joints: crosses, clear: LEAST_WALL },
      severity: 'note',
      fixes: moves(step, feature, into.mm + LEAST_WALL, stepMm),
    }),
  ];
};

const LOOKS: readonly Look[] = [walls, floors, bridges, onJoints, ...CUTTER_LOOKS];

/** Features in an order that lets one spoil the other: grooves after outlines, bores after mouldings. */
function order(step: FeatureStep): Finding[] {
  const ranks = step.features.map((each) => kindOf(each).order);
  const late = ranks.findIndex((rank, i) => i > 0 && rank < Math.max(...ranks.slice(0, i)));
  if (late < 0) return [];
  const before = ranks.findIndex((rank) => rank > ranks[late]);
  return [
    finding(step, late, 'feature-order', {
      message: [
        `${featureName(step.features[late])} (number ${late + 1}) is easier before ${featureName(step.features[before]).toLowerCase()} (number ${before + 1}): there is more to stand on, and it tears out less.`,
      ],
      numbers: { place: late + 1, before: before + 1 },
      severity: 'note',
      fixes: [
        {
          label: 'Put them in the usual order',
          edit: {
            do: 'setStep',
            step: step.id,
            change: {
              features: step.features.toSorted(rising((a) => kindOf(a).order)),
            },
          },
        },
      ],
    }),
  ];
}

/** What is wrong with the features of a step, each with the numbers that say so. */
export function featureFindings(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const own = asFeatures(step);
  const entry = own && timeline.steps.find(({ id }) => id === own.id);
  const report = own && entry && featureReport(build, own, entry);
  if (!own || !report) return [];
  return [
    ...report.features.flatMap((each, at) =>
      LOOKS.flatMap((look) =>
        look(each, at, {
          step: own,
          all: report.features,
          stepMm: build.shop.settingStep.mm,
          bits: build.shop.bits ?? [],
        }),
      ),
    ),
    ...order(own),
  ];
}

declare module '../document/finding' {
  interface FindingCodes {
    /** A feature that lies beside the piece. */
    'feature-beside': true;
    /** A feature that breaks out of the finished edge. */
    'feature-breaks-out': true;
    /** Too little wood between a feature and the finished edge. */
    'feature-thin-wall': true;
    /** A feature deeper than the wood. */
    'feature-too-deep': true;
    /** Too little wood under a feature. */
    'feature-thin-floor': true;
    /** Two features that reach into each other. */
    'features-meet': true;
    /** Too little wood between two features. */
    'features-near': true;
    /** A hole or mortise that lands on a joint. */
    'feature-on-joint': true;
    /** Features in an order that makes the work harder. */
    'feature-order': true;
  }
}

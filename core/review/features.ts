import type { Finding, Fix, Phrase, Step } from '../document';
import { type Bit, topRpmOf } from '../kit';
import { type FeatureReport, featureReport, LEAST_WALL } from '../shaping';
import { asFeatures, type Feature, featureName, type FeatureStep, kindOf } from '../steps';
import { roundUpToStep } from '../units';
import type { ReviewContext } from './context';

/** Sizes within this are one, mm. */
const SAME = 1e-6;
/** Widths of cutters within this are one, mm. */
const BIT_MM = 0.05;
/** Router bits wider than this turn slowly, mm (common practice). */
const LARGE_CUTTER = 50;

type Look = (report: FeatureReport, at: number, seen: Seen) => Finding[];
interface Seen {
  step: FeatureStep;
  all: readonly FeatureReport[];
  /** What places are set to, mm. */
  stepMm: number;
  bits: readonly Bit[];
}

/** The step with one feature changed. */
const changed = (step: FeatureStep, id: string, change: Partial<Feature>): Fix['edit'] => ({
  do: 'setStep',
  step: step.id,
  change: {
    features: step.features.map((each) => (each.id === id ? ({ ...each, ...change } as Feature) : each)),
  },
});

/** A feature’s place moved along one direction by so much towards the high side, mm. */
function moved(feature: Feature, along: 'u' | 'v', by: number): Partial<Feature> {
  const place = feature[along];
  const sign = place.from === 'high' ? -1 : 1;
  return { [along]: { ...place, by: { mm: place.by.mm + sign * by } } };
}

/** What lies at the low and at the high end of a direction of a side. */
const towards = ({ side }: Feature, along: 'u' | 'v'): readonly [string, string] => {
  const face = side === 'upper' || side === 'lower';
  if (along === 'v' && !face) return ['lower face', 'upper face'];
  return along === 'u' && (face || side === 'near' || side === 'far')
    ? ['left end', 'right end']
    : ['near edge', 'far edge'];
};

/** Moves that may mend it: either way along, and across. */
const moves = (step: FeatureStep, feature: Feature, least: number, stepMm: number): Fix[] => {
  const by = roundUpToStep(least, stepMm);
  const name = featureName(feature);
  return (['v', 'u'] as const).flatMap((along) =>
    [by, -by].map(
      (way): Fix => ({
        label: `Move ${name.toLowerCase()} towards the ${towards(feature, along)[way > 0 ? 1 : 0]}`,
        edit: changed(step, feature.id, moved(feature, along, way)),
      }),
    ),
  );
};

const depthOf = (feature: Feature): number | undefined =>
  'depth' in feature ? feature.depth?.mm : undefined;

/** Less deep by so much. */
const shallower = (step: FeatureStep, feature: Feature, by: number): Fix[] => {
  const now = depthOf(feature);
  return now !== undefined && now - by > 0.5
    ? [
        {
          label: `Cut ${featureName(feature).toLowerCase()} less deep`,
          edit: changed(step, feature.id, { depth: { mm: now - by } } as Partial<Feature>),
        },
      ]
    : [];
};

const finding = (
  step: FeatureStep,
  at: number,
  code: Finding['code'],
  own: { message: Phrase[]; numbers: Record<string, number>; fixes?: Fix[]; severity?: Finding['severity'] },
): Finding => ({
  code,
  step: step.id,
  severity: own.severity ?? 'warning',
  message: own.message,
  // The place among the ids: the same feature, wherever it stands in the order.
  numbers: {
    ...own.numbers,
    at: step.features
      .map(({ id }) => id)
      .toSorted()
      .indexOf(step.features[at].id),
  },
  fixes: own.fixes ?? [],
});

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

/** A cutter that the kit has no longer, or that is wider than what it is to cut; a drill that bores another hole. */
const chosenCutter: Look = ({ laid }, at, { step, bits }) => {
  const { feature } = laid;
  if (!feature.bit) return [];
  const name = featureName(feature);
  const own = bits.find(({ id }) => id === feature.bit);
  const fixes: Fix[] = [
    {
      label: `Take any cutter that fits ${name.toLowerCase()}`,
      edit: changed(step, feature.id, { bit: undefined }),
    },
  ];
  if (!own)
    return [
      finding(step, at, 'no-such-cutter', {
        message: [`The cutter that ${name.toLowerCase()} was planned with is not in this job’s kit.`],
        numbers: { bits: bits.length },
        fixes,
      }),
    ];
  const kind = kindOf(feature);
  const bored = kind.by === 'drill' ? kind.bitMm?.(feature) : undefined;
  const width = bored ?? kind.narrowest?.(feature);
  const off = width === undefined ? 0 : own.diameter.mm - width;
  return off > BIT_MM || (bored !== undefined && off < -BIT_MM)
    ? [
        finding(step, at, 'cutter-of-other-width', {
          message: [
            `${own.name} is `,
            own.diameter,
            ` wide, and ${name.toLowerCase()} `,
            { mm: width ?? 0 },
            '.',
          ],
          numbers: { diameter: own.diameter.mm, width: width ?? 0 },
          fixes,
        }),
      ]
    : [];
};

/** The cutter is too short, its body too wide, or it is so large that it must turn slowly. */
const cutters: Look = ({ laid, bit, depth }, at, { step }) => {
  if (!bit) return [];
  const { feature } = laid;
  const name = featureName(feature);
  const out: Finding[] = [];
  const cutting = bit.cutting?.mm;
  const body = bit.body?.mm ?? bit.shank?.mm;
  const wide = kindOf(feature).narrowest?.(feature) ?? bit.diameter.mm;
  const reach = bit.transition?.mm ?? cutting;
  if (cutting !== undefined && depth > cutting + SAME && (body === undefined || body >= wide - SAME))
    out.push(
      finding(step, at, 'cutter-too-short', {
        message: [
          `${bit.name} cuts `,
          { mm: cutting },
          ` deep, and ${name.toLowerCase()} needs `,
          { mm: depth },
          ...(body === undefined
            ? ['']
            : [': above its edges it is ', { mm: body }, ' thick and would rub in ', { mm: wide }]),
          '.',
        ],
        numbers: { cutting, depth, short: depth - cutting, ...(body === undefined ? {} : { body, wide }) },
        fixes: shallower(step, feature, depth - cutting),
      }),
    );
  else if (reach !== undefined && bit.transition && depth > reach + SAME)
    out.push(
      finding(step, at, 'cutter-too-short', {
        message: [
          `${bit.name} widens at `,
          { mm: reach },
          `, and ${name.toLowerCase()} is `,
          { mm: depth },
          ' deep.',
        ],
        numbers: { cutting: reach, depth, short: depth - reach },
        fixes: shallower(step, feature, depth - reach),
      }),
    );
  const rpm = topRpmOf(bit);
  if (bit.diameter.mm > LARGE_CUTTER && rpm !== undefined)
    out.push(
      finding(step, at, 'large-cutter', {
        message: [
          `${bit.name} is `,
          bit.diameter,
          ' wide: no more than ',
          { count: rpm },
          ' turns a minute.',
        ],
        numbers: { diameter: bit.diameter.mm, limit: LARGE_CUTTER, rpm },
        severity: 'note',
      }),
    );
  return out;
};

const LOOKS: readonly Look[] = [walls, floors, bridges, onJoints, chosenCutter, cutters];

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
              features: step.features
                .map((each, i) => ({ each, i }))
                .toSorted((a, b) => kindOf(a.each).order - kindOf(b.each).order || a.i - b.i)
                .map(({ each }) => each),
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
    /** A cutter that cannot reach so deep. */
    'cutter-too-short': true;
    /** The cutter a feature was planned with is not in the job’s kit. */
    'no-such-cutter': true;
    /** A cutter wider than what it is to cut, or a drill of another width than its hole. */
    'cutter-of-other-width': true;
    /** A large cutter, with its top speed. */
    'large-cutter': true;
    /** Features in an order that makes the work harder. */
    'feature-order': true;
  }
}

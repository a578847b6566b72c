import type { Finding, Fix } from '../document';
import { topRpmOf } from '../kit';
import { colletReach, guideReport, LEAST_GRIP, standsOut } from '../shaping';
import { featureName, kindOf } from '../steps';
import { changed, finding, type Look, SAME, shallower } from './featurelook';

/** Widths of cutters within this are one, mm. */
const BIT_MM = 0.05;
/** Router bits wider than this turn slowly, mm (common practice). */
const LARGE_CUTTER = 50;

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
  const collet = colletReach(bit);
  const needed = standsOut(feature, depth);
  if (collet !== undefined && needed > collet + SAME)
    out.push(
      finding(step, at, 'cutter-stands-out', {
        message: [
          `${bit.name} must stand out `,
          { mm: needed },
          ` for ${name.toLowerCase()}`,
          ...(feature.guide ? [' through its template'] : []),
          ', and can ',
          { mm: collet },
          ': ',
          { mm: LEAST_GRIP },
          ' of its shank stay in the collet.',
        ],
        numbers: { standsOut: needed, reach: collet, grip: LEAST_GRIP },
        fixes: shallower(step, feature, needed - collet),
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

/** A bushing that its cutter does not pass through. */
const bushings: Look = ({ laid, depth, bit }, at, { step }) => {
  const { feature } = laid;
  const report = guideReport(feature, depth, bit);
  if (report?.stuck === undefined) return [];
  const { guide, stuck } = report;
  return [
    finding(step, at, 'bushing-too-narrow', {
      message: [
        `The bushing of ${featureName(feature).toLowerCase()} is `,
        guide.inner,
        ' wide inside: its cutter is wider by ',
        { mm: stuck },
        '.',
      ],
      numbers: { inner: guide.inner.mm, cutter: guide.inner.mm + stuck },
      fixes: [
        {
          label: `Cut ${featureName(feature).toLowerCase()} without the template`,
          edit: changed(step, feature.id, { guide: undefined }),
        },
      ],
    }),
  ];
};

/** What is asked of the cutters of a feature. */
export const CUTTER_LOOKS: readonly Look[] = [chosenCutter, cutters, bushings];

declare module '../document/finding' {
  interface FindingCodes {
    /** A cutter that cannot reach so deep. */
    'cutter-too-short': true;
    /** The cutter a feature was planned with is not in the job’s kit. */
    'no-such-cutter': true;
    /** A cutter wider than what it is to cut, or a drill of another width than its hole. */
    'cutter-of-other-width': true;
    /** A cutter that would stand out of its collet too far. */
    'cutter-stands-out': true;
    /** A bushing narrower than the cutter that runs in it. */
    'bushing-too-narrow': true;
    /** A large cutter, with its top speed. */
    'large-cutter': true;
  }
}

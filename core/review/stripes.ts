import { distinct, rising, upwards } from '../units';
import type { Finding, Step } from '../document';
import { ownersOf } from '../glueup';
import { bounds, type Cell, contacts, dot, type Vec3 } from '../solid';
import { asGlueUp, sliceBefore, type TimelineStep } from '../steps';
import { findSpecies } from '../wood';
import type { ReviewContext } from './context';

/** Seams nearer than this share of a strip all but meet (common practice). */
const NEARLY = 0.1;

/** Places across a row where two of its strips meet, mm; the ends of the row are none. */
function seamsOf(cells: readonly Cell[]): { seams: number[]; strip: number } {
  const spans = cells
    .map((cell) => bounds({ cells: [cell] }))
    .map(({ min, max }) => [min[1], max[1]] as const);
  const [near, far] = [Math.min(...spans.map(([a]) => a)), Math.max(...spans.map(([, b]) => b))];
  const seams = distinct(spans.map(([a]) => a)).filter((at) => at > near + 1e-3);
  const widths = spans.map(([a, b]) => b - a).toSorted(upwards);
  return { seams: seams.filter((at) => at < far - 1e-3), strip: widths[Math.floor(widths.length / 2)] ?? 0 };
}

/** Rows of a stagger whose seams all but meet: the eye takes it for a fault, and the joint is as weak as one in line. */
export function staggeredSeams(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const entry = timeline.steps.find(({ id }) => id === step.id);
  const glue = asGlueUp(step);
  if (glue?.along !== 'length' || !entry?.laid || !sliceBefore(build, glue)) return [];
  if (glue.rows || entry.laid.length > MOST_ROWS) return [];
  const owner = ownersOf(entry);
  const rows = entry.laid.map((_, part) =>
    seamsOf(entry.pieces[0].blank.cells.filter((__, i) => owner[i] === part)),
  );
  const least = build.shop.noticeableStep.mm;
  const meant = Boolean(glue.shifts) || build.brief?.pattern === 'stagger';
  let worst: { row: number; offset: number; strip: number } | undefined;
  let close = 0;
  for (let i = 1; i < rows.length; i++) {
    const [above, row] = [rows[i - 1], rows[i]];
    if (above.seams.length === 0 || row.seams.length === 0) continue;
    const offsets = row.seams
      .map((at) => Math.min(...above.seams.map((other) => Math.abs(other - at))))
      .toSorted(upwards);
    // Half of a row's seams near those above make a line for the eye; a single one may be the pattern's own.
    const middle = offsets[Math.floor(offsets.length / 2)];
    const inLine = middle < least && !meant;
    if (inLine || middle >= NEARLY * row.strip) continue;
    close += 1;
    if (!worst || middle < worst.offset) worst = { row: i + 1, offset: middle, strip: row.strip };
  }
  if (!worst) return [];
  return [
    {
      code: 'seams-nearly-meet',
      step: step.id,
      severity: 'warning',
      dimension: 'width',
      message: meant
        ? [
            `The seams of rows ${worst.row - 1} and ${worst.row} `,
            ...(worst.offset < least ? ['meet'] : ['lie only ', { mm: worst.offset }, ' apart']),
            ', on strips ',
            { mm: worst.strip },
            ' wide: less than a tenth, so the stagger looks like a fault. Half a strip is best.',
          ]
        : [
            `The seams of rows ${worst.row - 1} and ${worst.row} miss each other by `,
            { mm: worst.offset },
            ', on strips ',
            { mm: worst.strip },
            ' wide: rows that are to line up do not.',
          ],
      numbers: { row: worst.row, offset: worst.offset, strip: worst.strip, rows: close },
      fixes: [],
    },
  ];
}
const MOST_ROWS = 400;

/** A stretch of a mitre where one strip of a leg ends: from and to along the joint, mm, and its wood. */
interface Stretch {
  from: number;
  to: number;
  species: string;
}

/** The strips of one leg as they end on a mitre, from the inner corner or the outer one, whichever is least. */
function stretchesOf(cells: readonly Cell[], along: Vec3, joint: Vec3, offset: number): Stretch[] {
  return cells
    .flatMap((cell): Stretch[] => {
      const on = cell.vertices
        .filter((v) => Math.abs(dot(v, joint) - offset) < 1e-3)
        .map((v) => dot(v, along));
      if (on.length < 2) return [];
      const [from, to] = [Math.min(...on), Math.max(...on)];
      return to - from > 1e-3 ? [{ from, to, species: cell.origin.species }] : [];
    })
    .toSorted(rising((a) => a.from));
}

/** Two legs that meet in a mitre: their stripes must meet there, outer strip to outer strip. */
export function mitredStripes(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const entry = timeline.steps.find(({ id }) => id === step.id);
  if (!asGlueUp(step)?.parts?.some(({ place }) => place?.angleDegrees !== undefined)) return [];
  if (!entry?.laid || entry.laid.length !== 2) return [];
  return mitreFindings(entry, build.shop.noticeableStep.mm);
}

function mitreFindings(entry: TimelineStep, noticeable: number): Finding[] {
  const { cells } = entry.pieces[0].blank;
  const owner = ownersOf(entry);
  // Two legs meet on one plane: any of its faces tells where that lies.
  const joint = contacts({ cells }).find(({ a, b }) => owner[a] !== owner[b]);
  if (!joint || Math.abs(joint.normal[2]) > 0.5) return [];
  const along: Vec3 = [-joint.normal[1], joint.normal[0], 0];
  const offset = dot(joint.at, joint.normal);
  const [one, other] = [0, 1].map((leg) =>
    stretchesOf(
      cells.filter((_, i) => owner[i] === leg),
      along,
      joint.normal,
      offset,
    ),
  );
  if (one.length < 2 && other.length < 2) return [];
  const base = { step: entry.id, severity: 'warning' as const, dimension: 'width' as const, fixes: [] };
  const woods = (list: readonly Stretch[]) => list.map(({ species }) => species).join();
  if (one.length === other.length && woods(one) !== woods(other) && woods(one) === woods(other.toReversed()))
    return [
      {
        ...base,
        code: 'mirror-order',
        message: [
          `The ${one.length} strips of the two legs meet in the opposite order: ${nameOf(one[0])} meets ${nameOf(other[0])} at the first. Lay one leg the other way round, so that outer strip meets outer strip.`,
        ],
        numbers: { strips: one.length },
      },
    ];
  const seams = (list: readonly Stretch[]) => list.slice(1).map(({ from }) => from);
  const [a, b] = [seams(one), seams(other)];
  const gaps = a.map((at, i) => Math.abs(at - (b[i] ?? Infinity)));
  const apart = a.length === b.length ? Math.max(...gaps) : Infinity;
  const worst = Math.max(0, gaps.indexOf(apart));
  if (apart < noticeable) return [];
  return [
    {
      ...base,
      code: 'stripes-do-not-meet',
      message:
        a.length === b.length
          ? [
              `At the mitre the stripes do not meet: strip ${worst + 1} of one leg ends `,
              { mm: apart },
              ' from that of the other. Rip both legs at one setting.',
            ]
          : [
              `At the mitre ${one.length} strips meet ${other.length}: the stripes cannot run through. Give both legs the same strips.`,
            ],
      numbers: {
        strip: worst + 1,
        ...(Number.isFinite(apart) ? { apart } : {}),
        strips: one.length,
        others: other.length,
      },
    },
  ];
}

const nameOf = ({ species }: Stretch): string => findSpecies(species)?.common ?? species;

declare module '../document/finding' {
  interface FindingCodes {
    /** Seams of a stagger that all but meet. */
    'seams-nearly-meet': true;
    /** Stripes of two legs do not meet at their mitre. */
    'stripes-do-not-meet': true;
    /** The stripes of two legs meet in mirrored order. */
    'mirror-order': true;
  }
}

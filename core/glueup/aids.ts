import { AID_COVER, type AidProblem } from './aidproblem';
import { type AidSize, SIZES } from './aidsizes';
import { type BuildDocument, type OwnAidSize, type Phrase, userOf } from '../document';
import { type AidKind, gluingOf, type ShopSnapshot, widestMilled } from '../kit';
import { type Blank, type Cell, faceOffset, inverse, movePoint, type Vec3 } from '../solid';
import { roomOf, type Timeline, type TimelineStep } from '../steps';
import { boxOfAid, inHollows } from './aidhollows';
import type { GlueUp } from './glueup';

/** A third of the thickness at most is taken. */
const THIRD = 3;

/** One aid: where it lies along its joint, and whether it stays hidden. */
export interface Aid {
  joint: number;
  /** Middle, mm from the left end. */
  at: number;
  along: number;
  byHand: boolean;
  /** Why it must not be there; undefined where it may. */
  bad?: AidProblem;
}

/** Aids of one glue-up. */
export interface AidLayout {
  kind: AidKind;
  size?: AidSize;
  aids: Aid[];
  /** Middle of the thickness as it is now, mm from the lower face: where the fence of the machine is set. */
  centreMm: number;
  /** Joints where none finds a place, with the reason. */
  bare: { joint: number; words: Phrase[] }[];
}

/** How far a point lies inside a cell, mm; below zero outside. */
const depthIn = (cell: Cell, p: Vec3): number => {
  let least = Infinity;
  for (const face of cell.faces) {
    const n = face.normal;
    const inside = faceOffset(cell, face) - (n[0] * p[0] + n[1] * p[1] + n[2] * p[2]);
    if (inside < least) least = inside;
  }
  return least;
};

/** The wood of later steps, ready to be asked whether a point of the glue-up is still in it. */
interface Later {
  name: string;
  cells: { cell: Cell; back: readonly number[] }[];
}

/** Steps that work on what a glue-up makes, in order, with the wood as each leaves it. */
function laterSteps(build: BuildDocument, timeline: Timeline, stepId: string): Later[] {
  const out: Later[] = [];
  const byId = new Map<string, TimelineStep>(timeline.steps.map((entry) => [entry.id, entry]));
  let step = build.steps.find(({ id }) => id === stepId);
  for (let guard = 0; step && guard < build.steps.length; guard++) {
    step = userOf(build, step.output);
    const entry = step && byId.get(step.id);
    if (!step || !entry) break;
    const { turns, waits } = roomOf(step).flow;
    if (turns || waits) continue;
    out.push({
      name: entry.name,
      cells: entry.pieces.flatMap(({ blank }) =>
        blank.cells.map((cell) => ({ cell, back: inverse(cell.toLog) })),
      ),
    });
  }
  return out;
}

const TOUCH = 1e-6;

/** The least wood around a point in a blank's cells, mm; below zero where it lies in none. */
const woodAround = (cells: readonly Cell[], p: Vec3): number =>
  cells.reduce((most, cell) => Math.max(most, depthIn(cell, p)), -Infinity);

const known = new WeakMap<Timeline, Map<string, AidLayout>>();

/**
 * Lays out alignment aids on every joint: at the kind's pitch, centred on the measured thickness, moved or left out
 * where a later cut of the build, an end, another aid from the far side of a strip or a stretch to keep clear would
 * open them; laid once for a run, as the review asks more than once. Whether they stay in wood is asked of the solid model itself, step by step; holes and grooves that the
 * build only notes are not seen. Aids put by hand stay, with what is wrong with them.
 */
export function layAids(build: BuildDocument, timeline: Timeline, glueUp: GlueUp): AidLayout {
  const ofRun = known.get(timeline) ?? new Map<string, AidLayout>();
  known.set(timeline, ofRun);
  const layout = ofRun.get(glueUp.step.id) ?? layAll(build, timeline, glueUp);
  ofRun.set(glueUp.step.id, layout);
  return layout;
}

function layAll(build: BuildDocument, timeline: Timeline, glueUp: GlueUp): AidLayout {
  const practice = gluingOf(build.shop);
  const { plan } = glueUp.step;
  const kind = plan?.aids?.kind ?? practice.aids;
  const entry = timeline.steps.find(({ id }) => id === glueUp.step.id);
  const centreMm = glueUp.heightMm / 2;
  if (kind === 'none' || kind === 'cauls' || !entry || glueUp.askew)
    return { kind, aids: [], centreMm, bare: [] };
  const own = plan?.aids?.own;
  const size = own ? ownSize(own, kind) : sizeFor(kind, glueUp);
  if (!size)
    return {
      kind,
      aids: [],
      centreMm,
      bare: glueUp.lines.map(({ joint }) => ({
        joint,
        words: tooSmall(smallest(kind), glueUp),
      })),
    };
  const check = checker(build, timeline, glueUp, { blank: entry.pieces[0].blank, size });
  const byHand = plan?.aids?.places;
  if (byHand) {
    const aids = byHand.map(({ joint, at }): Aid => ({ joint, at: at.mm, along: size.along, byHand: true }));
    return {
      kind,
      size,
      centreMm,
      bare: [],
      aids: aids.map((aid, i) => {
        const bad =
          check(aid) ??
          meets(
            aid,
            aids.filter((_, k) => k !== i),
            size,
            glueUp,
          );
        return bad ? { ...aid, bad } : aid;
      }),
    };
  }
  const aids: Aid[] = [];
  const bare: AidLayout['bare'] = [];
  for (const line of glueUp.lines) {
    const laid =
      kind === 'splines'
        ? spline(line, size, check)
        : pitched(line, size, glueUp, { before: aids, check, ...(own ? { own } : {}) });
    aids.push(...laid.aids);
    if (laid.aids.length === 0 && laid.why) bare.push({ joint: line.joint, words: laid.why.words });
  }
  return { kind, size, aids, centreMm, bare };
}

const smallest = (kind: keyof typeof SIZES): AidSize => SIZES[kind][SIZES[kind].length - 1];

/** Why even the smallest of a kind has no room: the joint is too thin, or a strip too narrow. */
const tooSmall = ({ thick, into }: AidSize, { heightMm, thinnestMm }: GlueUp): Phrase[] =>
  thick + 2 * AID_COVER > heightMm
    ? [
        'The joint is ',
        { mm: heightMm },
        ' thick: the smallest of the kind needs ',
        { mm: thick + 2 * AID_COVER },
        '.',
      ]
    : [
        'The narrowest strip is ',
        { mm: thinnestMm },
        ': the smallest of the kind needs ',
        { mm: into + AID_COVER },
        '.',
      ];

/** The largest size that leaves two thirds of the thickness, or the smallest that leaves its cover. */
function sizeFor(kind: keyof typeof SIZES, { heightMm, thinnestMm }: GlueUp): AidSize | undefined {
  const room = (size: AidSize) =>
    size.thick + 2 * AID_COVER <= heightMm && size.into + AID_COVER <= thinnestMm;
  return (
    SIZES[kind].find((size) => room(size) && THIRD * size.thick <= heightMm + TOUCH) ??
    SIZES[kind].findLast((size) => room(size))
  );
}

/** A size that the maker entered; it is called by its own numbers where it is drawn. */
const ownSize = ({ thick, into, along, pitch }: OwnAidSize, kind: keyof typeof SIZES): AidSize => ({
  ...smallest(kind),
  name: `${kind === 'looseTenons' ? 'loose tenon' : kind.slice(0, -1)} of its own size`,
  trade: '',
  along: along.mm,
  into: into.mm,
  thick: thick.mm,
  pitch: pitch?.mm ?? 150,
});

/** A third of the joint’s height: an aid no thicker than that leaves as much wood on both sides of it (common practice). mm. */
export const thirdOf = ({ heightMm }: GlueUp): number => heightMm / THIRD;

type Check = (aid: Aid) => AidProblem | undefined;

/** Asks the solid model whether an aid's hole stays in wood, now and after every later step. */
function checker(
  build: BuildDocument,
  timeline: Timeline,
  glueUp: GlueUp,
  { blank, size }: { blank: Blank; size: AidSize },
): Check {
  const later = laterSteps(build, timeline, glueUp.step.id);
  const { run, press, depth } = glueUp.axes;
  const keepOut = glueUp.step.plan?.aids?.keepOut ?? [];
  const mid = glueUp.heightMm / 2;
  return ({ joint, at, along }) => {
    const line = glueUp.lines.find((each) => each.joint === joint);
    if (!line) return { kind: 'thin', words: [`There is no joint ${joint}.`], shortMm: 0 };
    for (const zone of keepOut) {
      if (zone.joint !== undefined && zone.joint !== joint) continue;
      if (zone.low && zone.low.mm >= mid + size.thick / 2 - TOUCH) continue;
      if (zone.high && zone.high.mm <= mid - size.thick / 2 + TOUCH) continue;
      const over = Math.min(at + along / 2, zone.to.mm) - Math.max(at - along / 2, zone.from.mm);
      if (over > TOUCH)
        return {
          kind: 'keepOut',
          words: [`It lies `, { mm: over }, ` in what is kept clear for “${zone.why}”.`],
          shortMm: over,
        };
    }
    const reach = along / 2 + AID_COVER;
    const corners: { p: Vec3; joint: boolean }[] = [];
    for (const x of [at - reach, at + reach])
      for (const side of [-1, 1])
        for (const y of [0.01, size.into + AID_COVER])
          for (const z of [mid - size.thick / 2 - AID_COVER, mid + size.thick / 2 + AID_COVER]) {
            const p: [number, number, number] = [0, 0, 0];
            p[run] = x;
            p[press] = line.at + side * y;
            p[depth] = z;
            corners.push({ p, joint: y < 1 });
          }
    // Corners in one piece of wood now must stay in one piece of wood: a kerf between them would go through the hole.
    const held = new Map<Cell, Vec3[]>();
    for (const { p } of corners) {
      const cell = blank.cells.find((each) => depthIn(each, p) >= -TOUCH);
      if (!cell) return outside(p, at, { reach, line, blank });
      held.set(cell, [...(held.get(cell) ?? []), movePoint(cell.toLog, p)]);
    }
    const box = boxOfAid({ at, along, line, size, mid }, glueUp.axes);
    for (const { name, cells } of later)
      for (const [cell, logs] of held) {
        const bad = inHollows(box, cell, cells, name);
        if (bad) return bad;
        const most = cells
          .filter(({ cell: after }) => after.id === cell.id)
          .reduce(
            (best, { cell: after, back }) =>
              Math.max(best, Math.min(...logs.map((log) => depthIn(after, movePoint(back, log))))),
            -Infinity,
          );
        if (most === -Infinity)
          return {
            kind: 'waste',
            step: name,
            words: [`It falls away with what ${name} takes off.`],
            shortMm: 0,
          };
        if (most < -TOUCH) {
          const short = Math.min(-most, along + size.into);
          return {
            kind: 'cut',
            step: name,
            words: [
              `${name} would cut into it: `,
              { mm: short },
              ' too close, with ',
              { mm: AID_COVER },
              ' of wood to stay.',
            ],
            shortMm: short,
          };
        }
      }
    return undefined;
  };
}

/** Why a corner of an aid's hole lies in no wood already. */
function outside(
  p: Vec3,
  at: number,
  { reach, line, blank }: { reach: number; line: GlueUp['lines'][number]; blank: Blank },
): AidProblem {
  const short = -woodAround(blank.cells, p);
  return at - reach < line.from - TOUCH || at + reach > line.to + TOUCH
    ? {
        kind: 'end',
        words: ['It comes within ', { mm: Math.max(0, AID_COVER - short) }, ' of an end of the joint.'],
        shortMm: short,
      }
    : {
        kind: 'thin',
        words: ['The wood around it is ', { mm: short }, ' too thin for its hole.'],
        shortMm: short,
      };
}

/** Two aids that meet in a strip from both its sides, or overlap on one joint. */
function meets(aid: Aid, others: readonly Aid[], size: AidSize, glueUp: GlueUp): AidProblem | undefined {
  for (const other of others) {
    const apart = Math.abs(aid.at - other.at) - (aid.along + other.along) / 2;
    if (apart >= AID_COVER - TOUCH) continue;
    if (other.joint === aid.joint)
      return {
        kind: 'aid',
        words: ['It is ', { mm: Math.max(0, apart) }, ' from the next one on its joint.'],
        shortMm: AID_COVER - apart,
      };
    if (Math.abs(other.joint - aid.joint) !== 1) continue;
    const strip = glueUp.courses[Math.max(aid.joint, other.joint) - 1];
    const wood = strip.to - strip.from - 2 * size.into;
    if (wood < AID_COVER - TOUCH)
      return {
        kind: 'aid',
        words: [
          `It meets the one of joint ${other.joint} in a strip `,
          { mm: strip.to - strip.from },
          ' wide: ',
          { mm: Math.max(0, wood) },
          ' would stay between.',
        ],
        shortMm: AID_COVER - wood,
      };
  }
  return undefined;
}

/** Aids at the pitch, each moved by up to half of it until it is clear. */
function pitched(
  line: GlueUp['lines'][number],
  size: AidSize,
  glueUp: GlueUp,
  { before, check, own }: { before: readonly Aid[]; check: Check; own?: OwnAidSize },
): { aids: Aid[]; why?: AidProblem } {
  const length = line.to - line.from;
  const first = own?.first?.mm ?? Math.min(size.along / 2 + 40, length / 2);
  const room = Math.max(0, length - 2 * first);
  const count = own?.count ?? Math.max(2, Math.round((own?.first ? room : length) / size.pitch) + 1);
  const step = count > 1 ? (own?.pitch?.mm ?? room / (count - 1)) : 0;
  const out: Aid[] = [];
  let why: AidProblem | undefined;
  for (let i = 0; i < count; i++) {
    const wish = line.from + first + i * step;
    for (let k = 0; k <= Math.ceil(Math.max(step, size.pitch) / 2 / 5); k++) {
      const tries = (k === 0 ? [0] : [-5 * k, 5 * k]).map(
        (move): Aid => ({ joint: line.joint, at: wish + move, along: size.along, byHand: false }),
      );
      const found = tries.find((aid) => {
        const bad = meets(aid, [...out, ...before], size, glueUp) ?? check(aid);
        why ??= bad;
        return !bad;
      });
      if (!found) continue;
      out.push(found);
      break;
    }
  }
  return out.length > 0 ? { aids: out } : { aids: out, ...(why ? { why } : {}) };
}

/** A spline as long as stays hidden: shortened from both ends until nothing opens it. */
function spline(
  line: GlueUp['lines'][number],
  size: AidSize,
  check: Check,
): { aids: Aid[]; why?: AidProblem } {
  const middle = (line.from + line.to) / 2;
  let why: AidProblem | undefined;
  for (let along = line.to - line.from - 2 * AID_COVER; along > 3 * size.into; along -= 10) {
    const aid: Aid = { joint: line.joint, at: middle, along, byHand: false };
    const bad = check(aid);
    if (!bad) return { aids: [aid] };
    why = bad;
  }
  return { aids: [], ...(why ? { why } : {}) };
}

/** Whether faces should be kept flush: once joined, the piece is wider than every planer of the shop (a rule every school can follow). */
export function needsAids(
  glueUp: GlueUp,
  shop: ShopSnapshot,
): { widthMm: number; limitMm: number } | undefined {
  if (glueUp.axes.press === 2 || glueUp.courses.some(({ grain }) => grain === 'upright')) return undefined;
  const limitMm = widestMilled(shop);
  const widthMm = glueUp.axes.press === 1 ? glueUp.widthMm : glueUp.lengthMm;
  return limitMm > 0 && widthMm > limitMm + TOUCH ? { widthMm, limitMm } : undefined;
}

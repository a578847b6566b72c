import {
  type BoardStock,
  type BuildDocument,
  type Edit,
  type Finding,
  type Fix,
  type Phrase,
  isRefused,
  attempt,
} from '../document';
import { applyEdit } from '../edit';
import { counted, lengthText, roundDownToStep, rising, falling } from '../units';
import { speciesName } from '../wood';
import type { Answer } from './answer';
import { type Demand, demandOf, rulesOf, settingsOf, takenByOthers } from './demand';
import { boardFeetOf } from './measure';
import { faceCleaning, warpLoss } from './milling';
import { leavesFrom, type Problem, usable, type WantedStrip } from './problem';
import { EFFORT, solveNow } from './solve';

/** Why a strip found no wood: the hardest thing about it, with the best the rack has. */
interface Reason {
  code: 'no-such-wood' | 'too-thin' | 'too-short' | 'too-narrow' | 'in-hand' | 'all-used';
  needed: number;
  available: number;
  /** What must stay in hand at the fence, where that is it. */
  hold?: number;
}

/** Thickness a board still has when its faces are clean and its warp is out, mm. */
const flatThickness = (strip: WantedStrip, board: BoardStock, { shop }: Problem): number => {
  const { cup, bow, wind } = warpLoss(board, strip);
  return board.thickness.mm - cup - bow - wind - 2 * faceCleaning(board, shop);
};

/**
 * What stands in the way of a strip: the one size that no board has which has the others. Where no board lacks just one,
 * the first that none has at all, the thickness before the length before the width.
 */
function reasonFor(strip: WantedStrip, problem: Problem, withoutHold: () => ReadonlySet<string>): Reason {
  const same = problem.boards.filter(({ species }) => species === strip.species);
  if (same.length === 0) return { code: 'no-such-wood', needed: 1, available: 0 };
  const room = (board: BoardStock) => usable(board, problem);
  const sizes = [
    {
      code: 'too-thin' as const,
      needed: strip.milledThickness,
      of: (board: BoardStock) => flatThickness(strip, board, problem),
      fits: (board: BoardStock) => leavesFrom(strip, board, problem) > 0,
    },
    {
      code: 'too-short' as const,
      needed: strip.length,
      of: (board: BoardStock) => room(board).xMax - room(board).xMin,
      fits: (board: BoardStock) => room(board).xMax - room(board).xMin >= strip.length - 1e-6,
    },
    {
      code: 'too-narrow' as const,
      needed: strip.width,
      of: (board: BoardStock) => room(board).yMax - room(board).yMin,
      fits: (board: BoardStock) => room(board).yMax - room(board).yMin >= strip.width - 1e-6,
    },
  ];
  const reason = ({ code, needed, of }: (typeof sizes)[number], boards: readonly BoardStock[]): Reason => ({
    code,
    needed,
    available: Math.max(...boards.map(of)),
  });
  if (!same.some((board) => sizes.every(({ fits }) => fits(board)))) {
    for (const size of sizes) {
      const others = sizes.filter((other) => other !== size);
      const near = same.filter((board) => others.every(({ fits }) => fits(board)));
      if (near.length > 0) return reason(size, near);
    }
    const none = sizes.find(({ fits }) => !same.some(fits));
    if (none) return reason(none, same);
  }
  const hold = problem.rules.remnant;
  if (hold > 0 && withoutHold().has(strip.id))
    return {
      code: 'in-hand',
      needed: strip.width + problem.rules.ripKerf + hold,
      available: strip.width,
      hold,
    };
  return { code: 'all-used', needed: 1, available: 0 };
}

const REASONS: Record<Reason['code'], (r: Reason) => Phrase[]> = {
  'no-such-wood': () => ['There is none of this wood on the rack.'],
  'too-thin': (r) => [
    'The thickest board that is long and wide enough is ',
    { mm: r.available },
    ' once it is flat, and ',
    { mm: r.needed },
    ' is needed.',
  ],
  'too-short': (r) => [
    'The longest board gives ',
    { mm: r.available },
    ' clean where ',
    { mm: r.needed },
    ' is needed.',
  ],
  'too-narrow': (r) => [
    'The widest board gives ',
    { mm: r.available },
    ' clean where ',
    { mm: r.needed },
    ' is needed.',
  ],
  'in-hand': (r) => [
    'A board would give it but for the ',
    { mm: r.hold ?? 0 },
    ' that stay in hand at the fence after the last rip.',
  ],
  'all-used': () => ['What there is of it is used up by the other strips, or its faults are in the way.'],
};

/**
 * What is short, before anything is cut: for each wood and size how many strips found no board, how much wood that
 * is, and why. Without fixes; `shortageFixes` looks for those, since each is tried out.
 */
export function shortages(problem: Problem, answer: Pick<Answer, 'missing'>): Finding[] {
  const missing = problem.strips.filter(({ id }) => answer.missing.includes(id));
  const groups = new Map<string, WantedStrip[]>();
  let placed: ReadonlySet<string> | undefined;
  // Solved once, where it is asked for: which strips find a place if nothing need stay at the fence.
  const withoutHold = () => {
    placed ??= new Set(
      solveNow({ ...problem, rules: { ...problem.rules, remnant: 0 } }, EFFORT.quick).places.map(
        ({ strip }) => strip,
      ),
    );
    return placed;
  };
  for (const strip of missing) {
    const key = [strip.species, strip.length, strip.width, strip.thickness].join('|');
    groups.set(key, [...(groups.get(key) ?? []), strip]);
  }
  return [...groups.values()].map((strips): Finding => {
    const [strip] = strips;
    const reason = reasonFor(strip, problem, withoutHold);
    const volume = strips.length * strip.length * strip.width * strip.thickness;
    return {
      code: 'wood-short',
      step: '',
      severity: 'warning',
      message: [
        `${speciesName(strip.species)}: `,
        `${strips.length} of ${counted(problem.strips.filter(({ species }) => species === strip.species).length, 'strip')} short, each `,
        { mm: strip.length },
        ' by ',
        { mm: strip.width },
        ' by ',
        { mm: strip.thickness },
        ': ',
        { boardFeet: boardFeetOf(volume) },
        '. ',
        ...REASONS[reason.code](reason),
      ],
      numbers: {
        strips: strips.length,
        shortMm3: volume,
        needed: reason.needed,
        available: reason.available,
      },
      fixes: [],
    };
  });
}

/** What one job needs, as a problem of its own against a rack. */
export function problemFor(
  builds: readonly BuildDocument[],
  boards: readonly BoardStock[],
): { problem: Problem; demand: Demand } {
  const demand = demandOf(builds);
  const settings = settingsOf(builds[0]);
  const { shop } = builds[0];
  // A strip locked to a board that is gone or that another job holds is free again; a place on it is nobody's.
  const here = new Set(boards.map(({ id }) => id));
  const free = demand.strips.map((strip) =>
    strip.locked && !here.has(strip.locked.board) ? { ...strip, locked: undefined } : strip,
  );
  const others = takenByOthers(builds, demand).filter(({ locked }) => locked && here.has(locked.board));
  const strips = [...free, ...others];
  return {
    demand,
    problem: { strips, boards, rules: rulesOf(settings, shop), goal: settings.goal, shop, buying: settings },
  };
}

/** A fix that was tried: the edit, and how many strips are still short after it. */
interface Tried {
  fix: Fix;
  short: number;
}

const MOST_FIXES = 5;

/**
 * Ways out of a shortage that Junta can apply, each carried out and solved again before it is offered; only those
 * that leave less short are. The first is the one that changes least of the piece.
 */
export function shortageFixes(
  build: BuildDocument,
  boards: readonly BoardStock[],
  answer: Pick<Answer, 'missing'>,
): Fix[] {
  const before = answer.missing.length;
  if (before === 0) return [];
  const { demand } = problemFor([build], boards);
  const slots = answer.missing.flatMap((id) => demand.of.get(id)?.slot ?? []);
  const tried = candidates(build, boards, slots).flatMap(({ label, edit }): Tried[] => {
    const next = applyEdit(build, edit);
    // A plan that cannot be made, or one of more strips than can be broken down, is no way out.
    const answer = isRefused(next)
      ? next
      : attempt(() => solveNow(problemFor([next], boards).problem, EFFORT.quick));
    if (isRefused(answer)) return [];
    const short = answer.missing.length;
    return short < before
      ? [{ fix: { label: short ? `${label} (${short} still short)` : label, edit }, short }]
      : [];
  });
  const whole = tried.filter(({ short }) => short === 0);
  return (whole.length > 0 ? whole : tried.toSorted(rising((a) => a.short)))
    .slice(0, MOST_FIXES)
    .map(({ fix }) => fix);
}

function candidates(build: BuildDocument, boards: readonly BoardStock[], slots: string[]): Fix[] {
  const out: Fix[] = [];
  const settings = settingsOf(build);
  const offer = (label: string, edit: Edit) => void out.push({ label, edit });
  const all = build.assemblies.flatMap((assembly) => assembly.slots);
  const short = all.filter(({ id }) => slots.includes(id));
  const thinner = build.shop.saws.toSorted(rising((a) => a.kerf.mm))[0];
  const now = build.shop.saws.find(({ id }) => id === settings.ripSaw);
  if (thinner && now && thinner.kerf.mm < now.kerf.mm)
    offer(`Rip with ${thinner.name}`, { do: 'setBreakdown', breakdown: { ...settings, ripSaw: thinner.id } });
  if (short.some(({ grade = 'show' }) => grade !== 'hidden'))
    offer('Let these strips carry knots and stain on both faces', {
      do: 'setSlots',
      strips: slots,
      change: { grade: 'hidden', gradeBelow: 'hidden' },
    });
  if (short.some(({ grain }) => grain))
    offer('Take any grain for these strips', { do: 'setSlots', strips: slots, change: { grain: undefined } });
  if (short.some(({ set }) => set !== undefined))
    offer('Let the strips of a set come from several boards', {
      do: 'setSlots',
      strips: slots,
      change: { set: undefined },
    });
  const present = new Set(all.map(({ species }) => species));
  const onRack = [...new Set(boards.map(({ species }) => species))];
  for (const species of onRack.toSorted(falling((a) => Number(present.has(a)))).slice(0, 4))
    if (short.some((slot) => slot.species !== species))
      offer(
        `Make ${slots.length > 1 ? `these ${slots.length}` : 'it an'} accent ${slots.length > 1 ? 'strips' : 'strip'} of ${speciesName(species)}`,
        {
          do: 'setSlots',
          strips: slots,
          change: { species },
        },
      );
  out.push(...smaller(build, boards));
  return out;
}

/** Smaller pieces: narrower strips, a thinner or a shorter piece. Only for a job planned from a brief. */
function smaller(build: BuildDocument, boards: readonly BoardStock[]): Fix[] {
  const { brief } = build;
  if (!brief) return [];
  const out: Fix[] = [];
  const step = build.shop.settingStep.mm;
  const down = (mm: number, by: number) => roundDownToStep(mm * by, step);
  const atLeast = (mm: number) => ({ mm: Math.max(step, mm) });
  const text = (mm: number) => lengthText(mm, build.shop.display);
  for (const by of [0.9, 0.75, 0.6, 0.5]) {
    const module = atLeast(down(brief.module.mm, by));
    out.push({
      label: `Narrower strips: ${text(module.mm)} instead of ${text(brief.module.mm)}`,
      edit: { do: 'replan', change: { module } },
    });
  }
  const thickness = brief.thickness.value?.mm;
  const thickest = Math.max(0, ...boards.map((board) => board.thickness.mm));
  if (thickness !== undefined)
    for (const by of [0.93, 0.85, 0.75].filter((share) => thickness * share < thickest)) {
      const value = atLeast(down(thickness, by));
      out.push({
        label: `A thinner piece: ${text(value.mm)} instead of ${text(thickness)}`,
        edit: { do: 'replan', change: { thickness: { aim: 'fixed', value } } },
      });
    }
  const length = brief.length.value?.mm;
  if (length !== undefined) {
    const row = brief.module.mm;
    for (const fewer of [1, 2, 3])
      if (brief.pattern === 'endGrain' && length - fewer * row > row)
        out.push({
          label: `${fewer} ${fewer === 1 ? 'slice' : 'slices'} fewer: the block ${text(length - fewer * row)} long`,
          edit: { do: 'replan', change: { length: { aim: 'fixed', value: atLeast(length - fewer * row) } } },
        });
  }
  return out;
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Boards that fit do not give all the strips that are wanted. */
    'wood-short': true;
  }
}

import { rising } from '../units';
import { applyEdit } from '../edit';
import { type BuildDocument, type Edit, isRefused, type Phrase } from '../document';
import { type AidProblem, type GlueUp, glueUpsOf, layAids } from '../glueup';
import { run } from '../run';
import { featureReport, LEAST_WALL } from '../shaping';
import { asFeatures, type FeatureStep, type Timeline } from '../steps';
import { aidWays, boardWays, distances, placeWays, type Way } from './ways';
import { WISH_NAMES, type WishName } from './wishes';

/** The most layouts that one search plays forward. */
const MOST_TRIALS = 400;
/** Of each wish, so many of the nearest misses are tried together. */
const TOGETHER = 10;
/** The most layouts that are offered. */
const MOST_FOUND = 5;

/** A layout in which an opening and the aids clear each other: what is changed, and the edit that does it. */
export interface Clearing {
  changes: readonly WishName[];
  words: Phrase[];
  edit: Edit;
}

/** What a search for a layout found. */
export interface ClearingSearch {
  /** What is in the way as it stands; nothing where it is clear. */
  problems: Phrase[][];
  found: Clearing[];
  /** Where none is found: wishes of which two cannot both be kept, whatever the third gives way by up to the limit. */
  excluded: (readonly [WishName, WishName])[];
  /** Layouts played forward. */
  trials: number;
  /** There were more layouts than are played: those left out may clear, and nothing is said to be excluded. */
  cutShort: boolean;
}

/** What is in the way in a build: each with how much is short, mm. */
interface Standing {
  shorts: number[];
  words: Phrase[][];
}

/** What falls away whole with the waste is of no use, and in nobody’s way. */
const inTheWay = ({ kind }: AidProblem): boolean => kind !== 'waste';

/** How an opening stands to the aids of all joints, and to the edges of the piece. */
function standing(build: BuildDocument, timeline: Timeline, step: FeatureStep, id: string): Standing {
  const out: Standing = { shorts: [], words: [] };
  const put = (mm: number, words: Phrase[]) => {
    out.shorts.push(mm);
    out.words.push(words);
  };
  if (timeline.problems.some(({ severity }) => severity === 'stop'))
    put(Infinity, ['A step cannot be played.']);
  for (const glueUp of glueUpsOf(build, timeline)) {
    const layout = layAids(build, timeline, glueUp);
    for (const { bad, joint, at } of layout.aids)
      if (bad && inTheWay(bad))
        put(bad.shortMm, [`Joint ${joint}, the aid at `, { mm: at }, ': ', ...bad.words]);
    for (const { joint, words } of layout.bare) put(0, [`Joint ${joint} has no place for aids. `, ...words]);
  }
  const entry = timeline.steps.find((each) => each.id === step.id);
  const own = asFeatures(build.steps.find((each) => each.id === step.id));
  const report = entry && own && featureReport(build, own, entry);
  const mine = report?.features.find(({ laid }) => laid.feature.id === id);
  if (!mine || mine.laid.refused) put(Infinity, ['The opening cannot be cut.']);
  else if (mine.wall && mine.wall.mm < LEAST_WALL - 1e-6)
    put(LEAST_WALL - mine.wall.mm, [
      'The opening leaves ',
      { mm: Math.max(0, mine.wall.mm) },
      ' to the edge; ',
      { mm: LEAST_WALL },
      ' should stay.',
    ]);
  return out;
}

const short = ({ shorts }: Standing): number => shorts.reduce((sum, mm) => sum + 1 + Math.max(0, mm), 0);

/** A trial of some changes: the edit, and how it stands then. */
interface Trial {
  ways: readonly Way[];
  stands: Standing;
}

/**
 * Looks for layouts in which an opening clears the aids of all joints and the edges of the piece, changing only what may change, as little as
 * can be: its place across up to a limit, the widths of two boards at a joint, the aids. Each one is played forward before it is offered. Where
 * none is found it says which two wishes exclude each other: no layout keeps both, whichever way the third gives.
 */
export function findClearings(
  build: BuildDocument,
  stepId: string,
  featureId: string,
  { may, limitMm }: { may: readonly WishName[]; limitMm: number },
): ClearingSearch | undefined {
  const step = asFeatures(build.steps.find(({ id }) => id === stepId));
  const feature = step?.features.find(({ id }) => id === featureId);
  if (!step || !feature) return undefined;
  const before = run(build);
  const now = standing(build, before, step, featureId);
  const none = { problems: now.words, found: [], excluded: [], trials: 1, cutShort: false };
  if (now.words.length === 0) return none;
  const stepMm = build.shop.settingStep.mm || 1;
  const list = distances(now.shorts.filter(Number.isFinite), limitMm, stepMm);
  const glueUps = glueUpsOf(build, before).filter((glueUp) => concerned(build, before, glueUp));
  const ways: Record<WishName, Way[]> = {
    place: placeWays(step, feature, list),
    boards: glueUps.flatMap((glueUp) => boardWays(build, glueUp, list)).toSorted(rising((a) => a.size)),
    aids: glueUps.flatMap((glueUp) => aidWays(glueUp, layAids(build, before, glueUp))),
  };
  let trials = 1;
  let cutShort = false;
  const tried = (list: readonly Way[]): Trial | undefined => {
    if (trials >= MOST_TRIALS) {
      cutShort = true;
      return undefined;
    }
    trials += 1;
    let next: BuildDocument = build;
    for (const { edit } of list) {
      const made = applyEdit(next, edit);
      if (isRefused(made)) return undefined;
      next = made;
    }
    return { ways: list, stands: standing(next, run(next, before), step, featureId) };
  };
  const cleared = (trial: Trial) => trial.stands.words.length === 0;
  const nearest = (list: readonly Trial[]) =>
    list.toSorted(rising((a) => short(a.stands))).slice(0, TOGETHER);
  /** All that one wish gives: each way by itself, and two of them together where none by itself clears. */
  const givenBy = (wish: WishName): Trial[] => {
    const single = until(
      ways[wish].map((way) => [way]),
      tried,
    );
    if (wish === 'place' || single.some(cleared)) return single;
    const near = nearest(single);
    const pairs = near.flatMap((a, i) => near.slice(i + 1).map((b) => [...a.ways, ...b.ways]));
    return [...single, ...until(pairs, tried)];
  };
  const singles = Object.fromEntries(WISH_NAMES.map((wish) => [wish, givenBy(wish)])) as Record<
    WishName,
    Trial[]
  >;
  const allowed = WISH_NAMES.filter((wish) => may.includes(wish));
  const found = allowed.flatMap((wish) => singles[wish].filter(cleared));
  if (found.length === 0)
    for (const [i, one] of allowed.entries())
      for (const other of allowed.slice(i + 1)) {
        const pairs = nearest(singles[one]).flatMap((a) =>
          nearest(singles[other]).map((b) => [...a.ways, ...b.ways]),
        );
        found.push(...until(pairs, tried).filter(cleared));
      }
  return {
    problems: now.words,
    found: found.slice(0, MOST_FOUND).map((trial) => asClearing(trial)),
    excluded:
      found.length > 0 || cutShort
        ? []
        : WISH_NAMES.filter((wish) => !singles[wish].some(cleared)).map((third) => {
            const [one, other] = WISH_NAMES.filter((wish) => wish !== third);
            return [one, other] as const;
          }),
    trials,
    cutShort,
  };
}

/** Tries in their order until two clear, and keeps what was tried. */
function until(
  list: readonly (readonly Way[])[],
  tried: (ways: readonly Way[]) => Trial | undefined,
): Trial[] {
  const out: Trial[] = [];
  let clear = 0;
  for (const ways of list) {
    const trial = tried(ways);
    if (!trial) continue;
    out.push(trial);
    if (trial.stands.words.length === 0) clear += 1;
    if (clear === 2) break;
  }
  return out;
}

/** A glue-up whose aids are in the way. */
const concerned = (build: BuildDocument, timeline: Timeline, glueUp: GlueUp): boolean => {
  const { aids, bare } = layAids(build, timeline, glueUp);
  return bare.length > 0 || aids.some(({ bad }) => bad && inTheWay(bad));
};

const asClearing = ({ ways }: Trial): Clearing => ({
  changes: [...new Set(ways.map(({ wish }) => wish))],
  words: ways.flatMap(({ words }, i) => [...(i > 0 ? ['; '] : []), ...words]),
  edit: ways.length === 1 ? ways[0].edit : { do: 'many', edits: ways.map(({ edit }) => edit) },
});

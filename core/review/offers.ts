import { type BuildDocument, type Edit, type Finding, type Fix, type Severity, isRefused } from '../document';
import { applyEdit, lostBy } from '../edit';
import { counted } from '../units';

/** How bad a finding is, the worst highest. */
const RANK: Record<Severity, number> = { note: 0, warning: 1, stop: 2 };
/** More ways out than this are a list nobody reads. */
const MOST_OFFERS = 4;
/** So many second ways out are tried with a first one. */
const MOST_TRIED = 3;

/** What makes two findings the same one: its code, step and dimension, and the joint or the place it is about. */
export const sameFinding = ({ code, step, dimension, numbers }: Finding): string =>
  [code, step, dimension ?? '', numbers.joint ?? '', numbers.at ?? ''].join(' ');

/** The same without the step: a plan made anew calls its steps otherwise. */
const anywhere = ({ code, dimension }: Finding): string => [code, dimension ?? ''].join(' ');

/** A build as it would be after an edit, and all that is found in it. */
export interface PlayedEdit {
  next: BuildDocument;
  found: Finding[];
}

/** Carries out an edit on a build and finds what there is to find; undefined where it cannot be, or changes nothing. */
export function playEdit(
  build: BuildDocument,
  edit: Edit,
  find: (next: BuildDocument) => Finding[],
): PlayedEdit | undefined {
  const next = applyEdit(build, edit);
  // A plan that cannot be made, or a lay-up that is full: nothing that can be offered.
  return isRefused(next) || next === build ? undefined : { next, found: find(next) };
}

/**
 * What an edit raises that is as severe as what it mends: nothing where it keeps its promise. Undefined where it does
 * not even mend that. A finding on a step that was not there before is no new one where the old plan had the same
 * elsewhere; only the finding itself must be gone for good, not only moved.
 */
export function raisedBy(
  build: BuildDocument,
  finding: Finding,
  before: readonly Finding[],
  { next, found }: PlayedEdit,
): Finding[] | undefined {
  if (found.some((each) => sameFinding(each) === sameFinding(finding))) return undefined;
  const own = anywhere(finding);
  const known = new Map(before.map((each) => [sameFinding(each), RANK[each.severity]]));
  const codes = new Set(before.map(anywhere));
  const steps = new Set(build.steps.map(({ id }) => id));
  const isNew = (step: string) => !steps.has(step) && next.steps.some(({ id }) => id === step);
  return found.filter(
    (each) =>
      RANK[each.severity] >= RANK[finding.severity] &&
      (known.get(sameFinding(each)) ?? -1) < RANK[each.severity] &&
      !(isNew(each.step) && codes.has(anywhere(each)) && anywhere(each) !== own),
  );
}

/** Whether an edit does what it would be offered for: its finding is gone, and none has come that is as severe. */
export const keepsPromise = (
  build: BuildDocument,
  finding: Finding,
  before: readonly Finding[],
  played: PlayedEdit,
): boolean => raisedBy(build, finding, before, played)?.length === 0;

/** A way out with what it cannot keep, told before it is taken. */
function withDrops(build: BuildDocument, fix: Fix): Fix {
  const drops = lostBy(build, fix.edit);
  return drops.length > 0 ? { ...fix, drops } : fix;
}

/** Two ways out carried out one after the other. */
const both = (first: Fix, second: Fix): Fix => ({
  label: `${first.label}, and: ${second.label.charAt(0).toLowerCase()}${second.label.slice(1)}`,
  edit: { do: 'many', edits: [first.edit, second.edit] },
});

/**
 * Findings, one by one, with those of their ways out that, carried out and played forward, do what they are offered
 * for; the first few of them. Nothing is offered unplayed. One that mends its finding and raises another is offered
 * together with a way out of that one, where the two keep the promise.
 */
export function* withPlayedOffers(
  build: BuildDocument,
  found: readonly Finding[],
  find: (next: BuildDocument) => Finding[],
): Generator<Finding> {
  const played = new Map<string, PlayedEdit | undefined>();
  const play = (edit: Edit) => {
    const key = JSON.stringify(edit);
    if (!played.has(key)) played.set(key, playEdit(build, edit, find));
    return played.get(key);
  };
  const keeps = (finding: Finding, fix: Fix): Fix | undefined => {
    const after = play(fix.edit);
    const raised = after && raisedBy(build, finding, found, after);
    if (!raised) return undefined;
    if (raised.length === 0) return fix;
    if (raised.length > 1) return undefined;
    return raised[0].fixes
      .slice(0, MOST_TRIED)
      .map((second) => both(fix, second))
      .find(({ edit }) => {
        const end = play(edit);
        return end && keepsPromise(build, finding, found, end);
      });
  };
  for (const finding of found) {
    const fixes: Fix[] = [];
    for (const fix of finding.fixes) {
      if (fixes.length >= MOST_OFFERS) break;
      const offer = keeps(finding, fix);
      if (offer) fixes.push(withDrops(build, offer));
    }
    const tried = fixes.length === 0 ? [...new Set(finding.fixes.map(({ label }) => label))] : [];
    yield { ...finding, fixes, ...(tried.length > 0 ? { tried } : {}) };
  }
}

/**
 * Ways out that were found elsewhere, as for wood that is short, with what they raise in the rest of the job: those that
 * raise no warning alone, where there are such; else all, each with what it then warns of.
 */
export function withoutNewWarnings(
  build: BuildDocument,
  fixes: readonly Fix[],
  find: (next: BuildDocument) => Finding[],
): Fix[] {
  const known = new Set(find(build).map(sameFinding));
  const judged = fixes.flatMap((fix) => {
    const after = playEdit(build, fix.edit, find);
    if (!after) return [];
    const raised = after.found.filter(
      (each) => RANK[each.severity] >= RANK.warning && !known.has(sameFinding(each)),
    );
    return [{ fix: withDrops(build, fix), raised }];
  });
  const free = judged.filter(({ raised }) => raised.length === 0);
  if (free.length > 0) return free.map(({ fix }) => fix);
  return judged.map(({ fix, raised }) => ({
    ...fix,
    label: `${fix.label}; it raises ${counted(raised.length, 'other warning')}`,
  }));
}

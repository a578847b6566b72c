import type { BuildDocument, Phrase, Step } from '../document';
import { dependentSizes, type SizeOutcome } from '../sizes';
import {
  asFit,
  asPlayed,
  cutList,
  type Fact,
  fittingName,
  featureCuts,
  isNoPasses,
  type PassPlan,
  passPlan,
  roomOf,
  stepTitle,
  type Timeline,
} from '../steps';

/** What is set and cut at one step, for paper. */
export interface SettingLines {
  step: string;
  title: string;
  passes?: PassPlan;
  cuts: Phrase[][];
  /** What is known of it besides: coats, grits, who lifts. */
  facts: Fact[];
}

/** All settings of a job that are dialled or measured, step by step, and the sizes that follow. */
export interface SettingSheet {
  steps: SettingLines[];
  sizes: SizeOutcome[];
}

/** The sheet of a job's settings: passes, cuts in their order, sizes that follow; undefined where it has none of them. */
export function settingSheet(asked: BuildDocument, timeline: Timeline): SettingSheet | undefined {
  const build = asPlayed(asked, timeline);
  const steps = build.steps.flatMap((step): SettingLines[] => {
    const entry = timeline.steps.find(({ id }) => id === step.id);
    if (!entry || step.off) return [];
    const plan = passPlan(step, entry, build);
    const passes = plan && !isNoPasses(plan) ? plan : undefined;
    const cuts = [...cutList(step, entry, build), ...featureCuts(step, entry, build)];
    const facts = (roomOf(step).facts?.(step, { build, entry }) ?? []).map((fact) => withOwner(step, fact));
    return passes || cuts.length + facts.length > 0
      ? [{ step: step.id, title: stepTitle(build, step), ...(passes ? { passes } : {}), cuts, facts }]
      : [];
  });
  const alike = merged(steps);
  const sizes = dependentSizes(build, timeline);
  return alike.length + sizes.length > 0 ? { steps: alike, sizes } : undefined;
}

/** What is told of one fitting, under its name: on paper all of them stand in one list. */
function withOwner(step: Step, fact: Fact): Fact {
  const fitting = asFit(step)?.fittings.find(({ id }) => id === fact.of);
  return fitting ? { ...fact, name: `${fittingName(fitting)}: ${fact.name.toLowerCase()}` } : fact;
}

/** Steps that are set alike, as the same work on several sections, told once under all their names. */
function merged(steps: readonly SettingLines[]): SettingLines[] {
  const out = new Map<string, SettingLines>();
  for (const line of steps) {
    const key = JSON.stringify({ ...line, step: '', title: '' });
    const before = out.get(key);
    out.set(key, before ? { ...before, title: `${before.title}; ${line.title}` } : line);
  }
  return [...out.values()];
}

import { type BuildDocument, cameThrough, duplicateOf, type Failure, type FindingCode } from '../document';
import { WARNERS } from '../log';
import { findingsOf } from '../review';
import { run } from '../run';

/**
 * What the plan as it stands had pointed out of a failure before anything of it was made, and the shop's own rules also by what
 * was checked: the codes of those findings which warn of its kind, and of such rules, at its step or at one that its pieces come
 * from. Each once, in the order of the work.
 */
export function warnedOf(
  build: BuildDocument,
  { step, kind }: Pick<Failure, 'step' | 'kind'>,
): FindingCode[] {
  // As it was planned: what is done warns no more, and sizes that were read are no plan.
  const { boards, assemblies, checks } = build;
  const planned = { ...duplicateOf(build, build.name), boards, assemblies, checks };
  const codes = new Set<FindingCode>([...WARNERS[kind].codes, 'own-rule']);
  const at = build.steps.find((each) => each.id === step);
  const steps = new Set(at && cameThrough(build, at.output).map(({ id }) => id));
  const found = findingsOf(planned, run(planned)).filter(
    (finding) => codes.has(finding.code) && steps.has(finding.step),
  );
  return [...new Set(found.map(({ code }) => code))];
}

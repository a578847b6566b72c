import { type Finding, type FindingCode, type Fix, machineIdOf, type Step } from '../document';
import {
  doesWork,
  machineFacts,
  machinesThat,
  SAW_KINDS,
  sawDoes,
  type Work,
  WORKS,
  worksText,
} from '../kit';
import { machineOfStep, roomOf } from '../steps';
import type { ReviewContext } from './context';
import { sawOfStep } from './sawing';

/** A machine or a saw that does not do this work at all, whatever the size. */
export function wrongTool(step: Step, context: ReviewContext): Finding[] {
  const { build } = context;
  const { machining, sawing } = roomOf(step);
  const machine = machineOfStep(step, build);
  const work: Work | undefined = machining?.work ?? (machineIdOf(step) ? 'trim' : undefined);
  // Strips without a planer: the review says so in words of its own.
  if (
    machine &&
    work &&
    !doesWork(machine, work) &&
    (work !== 'mill' || machinesThat(build.shop, 'mill').length > 0)
  )
    return [
      toolFinding('machine-does-not', step, {
        says: `${machine.name} ${worksText(machineFacts(machine).does)}; this step ${WORKS[work]}.`,
        fixes: machinesThat(build.shop, work).map((other) => ({
          label: `Use ${other.name}`,
          edit: { do: 'useMachine', step: step.id, machine: other.id },
        })),
      }),
    ];
  const saw = sawOfStep(step, context);
  const missing = saw && sawing?.work(step).find((each) => !sawDoes(saw, each));
  if (!saw?.kind || !missing) return [];
  const works = sawing?.work(step) ?? [];
  return [
    toolFinding('saw-does-not', step, {
      says: `${saw.name} ${worksText(SAW_KINDS[saw.kind].does)}; this step ${WORKS[missing]}.`,
      fixes: build.shop.saws
        .filter((other) => works.every((each) => sawDoes(other, each)))
        .map((other) => ({
          label: `Use ${other.name}`,
          edit: { do: 'useSaw', step: step.id, saw: other.id },
        })),
    }),
  ];
}

const toolFinding = (
  code: FindingCode,
  step: Step,
  { says, fixes }: { says: string; fixes: Fix[] },
): Finding => ({
  code,
  step: step.id,
  severity: 'warning',
  message: [says],
  numbers: { others: fixes.length },
  fixes,
});

declare module '../document/finding' {
  interface FindingCodes {
    /** The machine a step names does other work than this. */
    'machine-does-not': true;
    /** The saw a step names does other work than this. */
    'saw-does-not': true;
  }
}

import {
  type BuildDocument,
  type LaidPart,
  MOST_FAILURES,
  MOST_STEPS,
  Refusal,
  type Step,
  usersOfOutput,
} from '../document';
import { machinesThat } from '../kit';
import { run } from '../run';
import { extents } from '../solid';
import { apartIds, machineThat, sawThat, stepTitle } from '../steps';
import { roundUpToStep } from '../units';
import { makeAgain, startAgain } from './again';
import { stepAt, swapped } from './chain';
import type { EditOf, Family } from './family';
import { freshIds } from './ids';

/** What jointing takes of each edge before a piece is glued together again, mm; nothing where it is cut across, or no machine joints. */
export const edgeAnew = ({ shop }: BuildDocument, along: 'width' | 'length'): number =>
  along === 'width' && machinesThat(shop, 'joint').length > 0
    ? roundUpToStep(shop.allowances.jointEdge.mm, shop.settingStep.mm)
    : 0;

function glueAnew(build: BuildDocument, edit: EditOf<'glueAnew'>): BuildDocument {
  const { piece, along, first, out, accent } = edit;
  const maker = stepAt(build, edit.step);
  const pieces = run(build).steps.find(({ id }) => id === maker.id)?.pieces ?? [];
  const struck = pieces.find(({ id }) => id === piece);
  if (!struck) throw new Refusal([`${stepTitle(build, maker)} gives no piece “${piece}”.`]);
  if (build.steps.length + 5 > MOST_STEPS) throw new Refusal([`A job holds at most ${MOST_STEPS} steps.`]);
  const fresh = freshIds(build);
  const at = { build, pieces: [struck] };
  const others = pieces.length > 1;
  const edgeMm = edgeAnew(build, along);
  const [a, b] = apartIds(piece);
  const apart: Step = {
    id: fresh('cutApart'),
    kind: 'cutApart',
    inputs: [maker.output],
    output: fresh('cutApart-out'),
    ...(others ? { only: [piece] } : {}),
    saw: sawThat(at, along === 'width' ? 'rip' : 'crosscut'),
    along,
    first,
    ...(out && out.mm > 0 ? { out } : {}),
  };
  const steps: Step[] = [apart];
  const inputs: string[] = [];
  const jointed = (part: string, near: number, far: number) => {
    const step: Step = {
      id: fresh('joint'),
      kind: 'joint',
      inputs: [apart.output],
      output: fresh('joint-out'),
      only: [part],
      machine: machineThat(at, 'joint'),
      near: { mm: near },
      far: { mm: far },
    };
    steps.push(step);
    inputs.push(step.output);
  };
  if (edgeMm > 0) {
    jointed(a, 0, edgeMm);
    jointed(b, edgeMm, 0);
  } else inputs.push(apart.output);
  let assemblies = build.assemblies;
  let between: LaidPart[] = [];
  if (accent) {
    const [length, width, thickness] = extents(struck.blank);
    const strip = fresh('accent');
    const own = { id: fresh('lay-up'), name: 'Accent strip', repeat: 1 };
    // Cut across, the strip lies along the cut: it is ripped as long as the piece is wide, and laid a quarter round.
    const size = along === 'width' ? length : width;
    assemblies = [
      ...assemblies,
      {
        ...own,
        slots: [
          {
            id: strip,
            species: accent.species,
            length: { mm: size },
            width: { mm: accent.mm },
            thickness: { mm: thickness },
          },
        ],
      },
    ];
    const rip: Step = {
      id: fresh('rip'),
      kind: 'rip',
      name: 'Rip the accent strip',
      inputs: [],
      output: fresh('rip-out'),
      assembly: own.id,
      saw: sawThat(at, 'rip'),
      fence: 'shared',
    };
    steps.push(rip);
    inputs.push(rip.output);
    between = [{ piece: strip, ...(along === 'length' ? { quarter: true } : {}) }];
  }
  const glue: Step = {
    id: fresh('glue'),
    kind: 'glue',
    name: 'Glue it together again',
    inputs,
    output: fresh('glue-out'),
    along,
    // Across the width the first part lies at the far edge.
    parts:
      along === 'width' ? [{ piece: b }, ...between, { piece: a }] : [{ piece: a }, ...between, { piece: b }],
  };
  steps.push(glue);
  const users = new Set(usersOfOutput(build, maker.output).map(({ id }) => id));
  const given = others ? [maker.output, glue.output] : [glue.output];
  const now = (id: string) => (id === piece ? glue.output : id);
  const after = build.steps.map((step): Step => {
    if (!users.has(step.id)) return step;
    const { parts } = step as { parts?: LaidPart[] };
    return {
      ...step,
      inputs: swapped(step.inputs, maker.output, given),
      ...(step.only ? { only: step.only.map(now) } : {}),
      ...(parts ? { parts: parts.map((part) => ({ ...part, piece: now(part.piece) })) } : {}),
    } as Step;
  });
  return {
    ...build,
    assemblies,
    steps: after.toSpliced(build.steps.indexOf(maker) + 1, 0, ...steps),
    targets: build.targets.map((target) =>
      users.size === 0 && target.output === maker.output ? { ...target, output: glue.output } : target,
    ),
  };
}

/** What is told of a failure, and what is done about it. */
export const failing: Family<'fail' | 'glueAnew' | 'makeAgain' | 'startAgain'> = {
  fail: (build, { failure }) => {
    const others = (build.failures ?? []).filter(({ id }) => id !== failure.id);
    if (others.length >= MOST_FAILURES)
      throw new Refusal([`A job remembers at most ${MOST_FAILURES} failures.`]);
    return { ...build, failures: [...others, failure] };
  },
  glueAnew,
  makeAgain,
  startAgain,
};

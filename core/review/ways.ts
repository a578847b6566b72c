import {
  applyEdit,
  DIMENSIONS,
  run,
  sliceBefore,
  type BuildDocument,
  type Edit,
  type Fix,
  type GlueStep,
  type Timeline,
} from '../build';
import type { Axis } from '../solid';
import { lengthText } from '../units';
import { compareTarget } from './compare';

/** The glue-up that makes a dimension out of its parts: the last along it, past any turn. */
const glueAlong = (build: BuildDocument, axis: Axis): GlueStep | undefined =>
  build.steps.findLast(
    (step): step is GlueStep => step.kind === 'glue' && step.along === DIMENSIONS[axis] && !step.rows,
  );

/** Another wood than those of the lay-up, for a line that is meant to be seen. */
function accentWood(build: BuildDocument): string {
  const used = new Set(build.assemblies.flatMap(({ slots }) => slots.map(({ species }) => species)));
  return (
    ['walnut_black', 'maple_sugar', 'cherry_black', 'oak_white'].find((wood) => !used.has(wood)) ??
    'walnut_black'
  );
}

/** What could be done about a dimension that came out short: only what, carried out, meets the target is offered. */
export function waysOut(build: BuildDocument, timeline: Timeline, axis: Axis, shortMm: number): Fix[] {
  const glue = glueAlong(build, axis);
  const entry = glue && timeline.steps.find(({ id }) => id === glue.id);
  const { display } = build.shop;
  const tries: Fix[] = [];
  const say = (label: string, edit: Edit) => tries.push({ label, edit });
  const rip = build.steps.find((step) => step.kind === 'rip');
  const glued = build.readings.length > 0 || build.steps.some((step) => step.kind === 'glue' && step.done);
  if (glue && entry?.laid && shortMm > 0) {
    const slice = sliceBefore(build, glue);
    const row = entry.laid[0].max[axis] - entry.laid[0].min[axis];
    if (slice && axis === 0 && row > 0) {
      const rows = Math.ceil(shortMm / row - 1e-6);
      const trim = build.steps.findLast((step) => step.kind === 'trim');
      const over = rows * row - shortMm;
      const evened: Edit[] =
        trim?.kind === 'trim'
          ? [
              {
                do: 'setStep',
                step: trim.id,
                change: { start: { mm: trim.start.mm + over / 2 }, end: { mm: trim.end.mm + over / 2 } },
              },
            ]
          : [];
      const more = `${rows} more ${rows === 1 ? 'slice' : 'slices'}`;
      const add: Edit = { do: 'addRows', step: glue.id, rows };
      say(`Lay in ${more}`, { do: 'many', edits: [add, ...evened] });
      if (rip && !glued) {
        const kerf = build.shop.saws.find(({ id }) => id === slice.saw)?.kerf.mm ?? 0;
        const longer: Edit = { do: 'lengthenStrips', step: rip.id, byMm: rows * (slice.thickness.mm + kerf) };
        say(`Longer strips and ${more}`, { do: 'many', edits: [longer, add, ...evened] });
      }
    }
    if (axis < 2) {
      const size = entry.greatest;
      const accent = {
        mm: shortMm,
        species: accentWood(build),
        length: axis === 0 ? size[1] : size[0],
        thickness: size[2],
      };
      say(`An accent strip of ${lengthText(shortMm, display)} in the middle`, {
        do: 'addAccent',
        step: glue.id,
        accent,
      });
    }
  }
  const trim = build.steps.findLast((step) => step.kind === 'trim');
  if (trim?.kind === 'trim' && axis < 2) {
    const [a, b] = axis === 0 ? (['start', 'end'] as const) : (['near', 'far'] as const);
    const total = trim[a].mm + trim[b].mm - shortMm;
    const change = { [a]: { mm: total / 2 }, [b]: { mm: total / 2 } };
    if (total >= 0) say('Trim less, the same off both sides', { do: 'setStep', step: trim.id, change });
  }
  const met = tries.filter(({ edit }) => meets(build, edit, axis));
  const aim = build.targets[0]?.[DIMENSIONS[axis]];
  const comes = timeline.finished?.greatest[axis];
  if (aim?.value && comes !== undefined && shortMm > 0)
    met.push({
      label: `Accept ${lengthText(comes, display)}`,
      edit: { do: 'setAim', dimension: DIMENSIONS[axis], aim: { aim: 'fixed', value: { mm: comes } } },
    });
  return met;
}

/** Whether an edit, carried out and played forward, makes the dimension what is asked, without stopping anywhere. */
function meets(build: BuildDocument, edit: Edit, axis: Axis): boolean {
  try {
    const next = applyEdit(build, edit);
    const timeline = run(next);
    if (timeline.problems.some(({ severity }) => severity === 'stop')) return false;
    const short = timeline.steps.some(
      (step) =>
        step.wanted !== undefined &&
        step.pieces.length < step.wanted - (next.steps.find(({ id }) => id === step.id)?.spoilt?.length ?? 0),
    );
    return !short && (compareTarget(next, timeline)?.[axis].fits ?? false);
  } catch {
    return false;
  }
}

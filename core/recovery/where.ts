import { type BuildDocument, firstOf, makersOf, type Step, usersOf } from '../document';
import {
  asGlueUp,
  asSlicing,
  type GlueStep,
  greatestSize,
  isOf,
  type Laid,
  roomOf,
  type SliceStep,
  type Timeline,
  type TimelineStep,
} from '../steps';

/** Where something failed: the step, what it gives, where that came from and where it goes. */
export interface Where {
  build: BuildDocument;
  timeline: Timeline;
  step: Step;
  entry: TimelineStep;
  /** What its pieces are: strips out of boards, slices of a panel, or one glued from parts. */
  made: 'strips' | 'slices' | 'glued' | 'other';
  slice?: SliceStep;
  /** The glue-up that its pieces were joined in. */
  joined?: GlueStep;
  /** The glue-up that its pieces go into as they are. */
  into?: GlueStep;
}

/** Where a step stands; undefined where it could not be played. */
export function whereAt(build: BuildDocument, timeline: Timeline, id: string): Where | undefined {
  const step = build.steps.find((each) => each.id === id);
  const entry = timeline.steps.find((each) => each.id === id);
  if (!step || !entry || step.off) return undefined;
  const own = (each: Step): boolean => {
    const { flow } = roomOf(each);
    return Boolean(flow.source ?? flow.joins ?? flow.divides?.(each));
  };
  const from = firstOf(makersOf(build, step.output), own);
  const into = asGlueUp(firstOf(usersOf(build, step.output), own));
  const slice = asSlicing(from);
  const joined = asGlueUp(from);
  const made = isOf(from, 'rip') ? 'strips' : slice ? 'slices' : joined ? 'glued' : 'other';
  return {
    build,
    timeline,
    step,
    entry,
    made,
    ...(slice ? { slice } : {}),
    ...(joined ? { joined } : {}),
    ...(into ? { into } : {}),
  };
}

/** A joint of a glued piece: where it lies along the piece as it is now, from the near edge or the left end, mm. */
export interface JointPlace {
  joint: number;
  along: 'width' | 'length';
  at: number;
}

/**
 * The joints of what a step gives, where it was glued in one row and lies as it was glued. What was planed or cut off the low side
 * since then is taken off their places. Empty where there are none that could be cut open.
 */
export function jointsAt({ build, timeline, step, joined, entry }: Where): JointPlace[] {
  if (!joined || joined.rows || joined.along === 'thickness') return [];
  const axis = joined.along === 'width' ? 1 : 0;
  let off = 0;
  for (const each of makersOf(build, step.output)) {
    if (each === joined || each.id === joined.id) break;
    const room = roomOf(each);
    if (room.flow.turns) return [];
    for (const take of room.takesOff?.(each) ?? []) if (take.dimension === joined.along) off += take.min;
  }
  const laid: readonly Laid[] = timeline.steps.find(({ id }) => id === joined.id)?.laid ?? [];
  const size = greatestSize(entry.pieces, joined.along);
  return laid.slice(1).flatMap((part, i) => {
    const [a, b] = [laid[i], part];
    const at = Math.max(Math.min(a.min[axis], b.min[axis]), Math.min(a.max[axis], b.max[axis])) - off;
    const joint = { joint: i + 1, along: joined.along as 'width' | 'length', at };
    return at > 1 && at < size - 1 ? [joint] : [];
  });
}

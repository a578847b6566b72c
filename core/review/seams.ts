import type { Finding, FindingCode, Phrase, Step } from '../document';
import { practiceOf } from '../kit';
import { type JointReading, jointReadings } from '../layup';
import { roomOf } from '../steps';
import type { ReviewContext } from './context';

const numbered = (list: readonly JointReading[], of: (reading: JointReading) => boolean): number[] =>
  list.flatMap((reading, i) => (of(reading) ? [i + 1] : []));

const words = (joints: readonly number[]): string =>
  joints.length === 1
    ? `Joint ${joints[0]}`
    : `Joints ${joints.slice(0, 6).join(', ')}${joints.length > 6 ? ' and more' : ''}`;

/** What the joints of a lay-up show that this shop's practice minds. Another school's shop is only shown it. */
export function seamFindings(step: Step, { build, timeline }: ReviewContext): Finding[] {
  const practice = practiceOf(build.shop);
  const minds = practice.rings === 'alternate' || practice.first === 'planing';
  const looked =
    build.boards.some((board) => board.sapEdge || board.faults?.some(({ kind }) => kind === 'sapwood')) ||
    build.assemblies.some(({ slots }) => slots.some(({ sapEdge }) => sapEdge));
  if (!roomOf(step).flow.joins || (!minds && !looked)) return [];
  const readings = jointReadings(build, timeline, step.id);
  const out: Finding[] = [];
  const say = (code: FindingCode, joints: number[], message: Phrase[]) => {
    if (joints.length > 0)
      out.push({
        code,
        step: step.id,
        severity: 'note',
        message,
        numbers: { joints: joints.length },
        fixes: [],
      });
  };
  if (practice.rings === 'alternate') {
    const alike = numbered(readings, ({ rings }) => rings === 'alike');
    say('rings-alike', alike, [
      `${words(alike)}: the rings on both sides lie the same way, and this shop alternates them. Roll one strip over.`,
    ]);
  }
  if (practice.first === 'planing') {
    const opposed = numbered(readings, ({ planing }) => planing === 'opposed');
    say('planing-opposed', opposed, [
      `${words(opposed)}: the neighbours plane in opposite directions, so one of them tears. Turn one end for end.`,
    ]);
  }
  const one = numbered(readings, ({ sap }) => sap === 'one');
  say('sapwood-meets-heartwood', one, [
    `${words(one)}: sapwood meets heartwood, which shows as a line. Sapwood beside sapwood hides the joint.`,
  ]);
  return out;
}

declare module '../document/finding' {
  interface FindingCodes {
    /** Neighbours whose rings curve the same way. */
    'rings-alike': true;
    /** Neighbours that would be planed in opposite directions. */
    'planing-opposed': true;
    /** Sapwood meets heartwood at a joint. */
    'sapwood-meets-heartwood': true;
  }
}

import { Plus } from 'lucide-react';
import { type BuildDocument, DIMENSIONS, type Finding, type Step } from '../../../core/document';
import type { Outlook, StepOutlook } from '../../../core/review';
import { type Lath, stepName } from '../../../core/steps';
import { type Display, lengthParts, offText, shownMm } from '../../../core/units';
import { markName } from '../../../core/view';
import { Measure } from '../../parts/Measure';

/** Where the lath lies in its box, px: its upper edge, how high it is, its three pencil lines, where it begins. */
export const TOP = 22;
export const HEIGHT = 92;
export const LINE = [30, 57, 84].map((y) => y - 2);
export const LEFT = 46;

/** So much of a lath that slides under the pin is one mark's, px: it is read at arm's length. */
const HELD_PX = 168;

const sameText = (a: number, b: number, display: Display) =>
  JSON.stringify(lengthParts(a, display)) === JSON.stringify(lengthParts(b, display));

/** Values of a step that differ from the step before it. */
function changes(now: StepOutlook, before: StepOutlook | undefined, display: Display): boolean[] {
  return [0, 1, 2].map(
    (a) =>
      !before ||
      !sameText(now.greatest[a], before.greatest[a], display) ||
      !sameText(now.least[a], before.least[a], display),
  );
}

/** Pixels that one unit of a mark's weight, ten letters, needs at least. */
const LEAST_PX = 66;

/** Room a mark needs: more where values are written, least where nothing changes. */
function weightOf(
  now: StepOutlook | undefined,
  before: StepOutlook | undefined,
  name: string,
  display: Display,
): number {
  if (!now) return 1;
  const ranged = [0, 1, 2].some(
    (a) => changes(now, before, display)[a] && !sameText(now.least[a], now.greatest[a], display),
  );
  const label = name.length + (now.count > 1 ? 4 : 0);
  return Math.max(
    0.62,
    label / 10,
    tookText(now).length / 12,
    ranged ? 1.5 : 0,
    changes(now, before, display).some(Boolean) ? 0.85 : 0,
  );
}

/** Amounts that are alike are said once: “ends and edges −3/8”. */
function tookGroups(seen: StepOutlook): { from: string; mm: number }[] {
  const [first, second] = seen.took;
  return first && second && Math.abs(first.mm - second.mm) < 1e-6
    ? [{ from: `${first.from} and ${second.from}`, mm: first.mm }]
    : seen.took;
}
const tookText = (seen: StepOutlook): string =>
  tookGroups(seen)
    .map(({ from }) => `${from} -0/00`)
    .join(', ');

/** A step of a line of work where it stands on the lath, px. */
export interface Mark {
  step: Step;
  seen?: StepOutlook;
  before?: StepOutlook;
  x: number;
  room: number;
  findings: Finding[];
}

/** Lays the marks of a line of work along a lath, each with the room that what is written there needs. */
export function layMarks(
  lath: Lath,
  build: BuildDocument,
  outlook: Outlook,
  { display, width, pin }: { display: Display; width: number; pin: number | undefined },
): Mark[] {
  const seen = (step: Step | undefined) => outlook.steps.find(({ id }) => id === step?.id);
  const before = (step: Step, i: number) =>
    i > 0
      ? seen(lath.steps[i - 1])
      : step.inputs.length > 0
        ? seen(build.steps.find(({ output }) => output === step.inputs[0]))
        : undefined;
  const weights = lath.steps.map((step, i) =>
    weightOf(seen(step), i > 0 ? before(step, i) : undefined, stepName(step), display),
  );
  const total = weights.reduce((a, b) => a + b, 0);
  // A long line of work is wider than its room and slides: names are never written over one another.
  const each = Math.max((width - LEFT - 30) / total, LEAST_PX);
  let x = pin ?? LEFT + 22;
  return lath.steps.map((step, i) => {
    const room = Math.max(each * weights[i], pin === undefined ? 0 : HELD_PX);
    const mark = {
      step,
      seen: seen(step),
      before: i > 0 ? before(step, i) : undefined,
      x,
      room,
      findings: outlook.findings.filter((f) => f.step === step.id),
    };
    x += room;
    return mark;
  });
}

/** A round plus on the line between two marks: seen when the lath is pointed at, always where there is no pointer. */
export function AddHere({
  x,
  name,
  stop,
  onAdd,
}: {
  x: number;
  name: string;
  stop: boolean;
  onAdd: () => void;
}) {
  return (
    <button
      type="button"
      tabIndex={stop ? 0 : -1}
      aria-label={name}
      title={name}
      onClick={onAdd}
      className="drawn reach border-chalk text-chalk hover:bg-chalk absolute! z-10 flex h-6 w-6 items-center justify-center rounded-full border bg-white opacity-0 group-hover/lath:opacity-100 hover:text-white focus-visible:opacity-100 pointer-coarse:opacity-100"
      style={{ left: x - 26, top: TOP + HEIGHT / 2 - 14 }}
    >
      <Plus size={14} aria-hidden />
    </button>
  );
}

/** One mark: its name, the sizes that it changes, and what it takes away. */
export function MarkView({
  build,
  mark,
  chosen,
  held,
  display,
  onChoose,
}: {
  build: BuildDocument;
  mark: Mark;
  chosen: boolean;
  /** On a phone: the mark under the pin says all its sizes, large. */
  held: boolean;
  display: Display;
  onChoose: (id: string) => void;
}) {
  const { step, seen, before, x, room, findings } = mark;
  const changed = seen ? changes(seen, before, display) : [false, false, false];
  const serious = findings.filter(({ severity }) => severity !== 'note');
  const ringed = (axis: number) => serious.some((finding) => finding.dimension === DIMENSIONS[axis]);
  const ringName = serious.some((finding) => finding.dimension === undefined || !seen);
  return (
    <button
      id={`mark-${step.id}`}
      type="button"
      tabIndex={chosen ? 0 : -1}
      onClick={() => onChoose(step.id)}
      aria-label={markName(build, step, { seen, before, findings, display })}
      aria-current={chosen ? 'step' : undefined}
      data-step={step.id}
      className="drawn hover:bg-chalk/5 absolute rounded-sm text-left"
      style={{ left: x - 6, top: 0, width: room, height: TOP + HEIGHT + 24 }}
      title={
        serious.length ? `${serious.length} ${serious.length === 1 ? 'finding' : 'findings'}` : undefined
      }
    >
      <span
        className={`absolute top-[3px] left-3 text-[13.5px] font-semibold whitespace-nowrap ${chosen ? 'text-chalk' : 'text-ink'}`}
      >
        <span
          className={`${ringName ? 'border-red text-red rounded-full border-2 px-1.5' : ''} ${step.off ? 'text-graphite font-medium line-through' : ''}`}
        >
          {stepName(step)}
          {held && chosen && `, ${build.steps.indexOf(step) + 1} of ${build.steps.length}`}
        </span>
        {step.off && <span className="text-graphite ml-1 text-[12px] font-medium">left out</span>}
        {seen && seen.count > 1 && (
          <span className="rule text-graphite ml-1 text-[12px] font-medium">×{seen.count}</span>
        )}
      </span>
      {seen &&
        [0, 1, 2].map((axis) =>
          changed[axis] || ringed(axis) || (held && chosen) ? (
            <span
              key={axis}
              className={`absolute left-[11px] leading-none whitespace-nowrap ${held && chosen ? '-mt-1 text-[19px] font-semibold' : 'text-[15px]'}`}
              style={{ top: TOP + LINE[axis] - 17 }}
            >
              <span className={ringed(axis) ? 'pencil-ring text-red' : ''}>
                {!sameText(seen.least[axis], seen.greatest[axis], display) && (
                  <>
                    <Measure value={seen.least[axis]} display={display} />
                    <span className="text-ink/70">–</span>
                  </>
                )}
                <Measure value={seen.greatest[axis]} display={display} />
              </span>
              <span className="bg-ink absolute top-[15px] -left-[8px] h-[5px] w-[5px] rounded-full" />
            </span>
          ) : null,
        )}
      {seen && seen.took.length > 0 && (
        <span
          className="text-graphite absolute left-3 text-[12.5px] whitespace-nowrap"
          style={{ top: TOP + HEIGHT + 4 }}
        >
          {tookGroups(seen).map((took, i) => (
            <span key={took.from}>
              {i > 0 && ', '}
              {took.from.startsWith('kerf') ? `${took.from} ` : `${took.from} −`}
              {shownMm(took.mm, display) === 0 ? (
                <span className="rule">{offText(took.mm, display)}</span>
              ) : (
                <Measure value={took.mm} display={display} />
              )}
            </span>
          ))}
        </span>
      )}
      {!seen && (
        <span className="text-red absolute left-3 text-[12.5px]" style={{ top: TOP + HEIGHT + 4 }}>
          not reached
        </span>
      )}
    </button>
  );
}

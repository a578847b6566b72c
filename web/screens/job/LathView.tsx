import { Plus } from 'lucide-react';
import { Fragment, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { type BuildDocument, type Finding, type Step, DIMENSIONS } from '../../../core/document';
import type { Outlook, StepOutlook } from '../../../core/review';
import { type Lath, stepName } from '../../../core/steps';
import { type Display, lengthParts } from '../../../core/units';
import { type ChainPlace, crossing, markName, placeAfter } from '../../../core/view';
import { Measure } from '../../parts/Measure';

const ROWS = ['L', 'W', 'T'] as const;
const TOP = 22;
const HEIGHT = 92;
const LINE = [30, 57, 84].map((y) => y - 2);
const LEFT = 46;

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

interface Mark {
  step: Step;
  seen?: StepOutlook;
  before?: StepOutlook;
  x: number;
  room: number;
  findings: Finding[];
}

function layMarks(
  lath: Lath,
  build: BuildDocument,
  outlook: Outlook,
  { display, width }: { display: Display; width: number },
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
  let x = LEFT + 22;
  return lath.steps.map((step, i) => {
    const room = each * weights[i];
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

/** One lath drawn large: three pencil lines, values only where a step changes them, what was taken underneath. */
export function LathView({
  lath,
  build,
  outlook,
  chosen,
  display,
  onChoose,
  onAdd,
}: {
  lath: Lath;
  build: BuildDocument;
  outlook: Outlook;
  chosen: string | undefined;
  display: Display;
  onChoose: (id: string) => void;
  onAdd: (place: ChainPlace) => void;
}) {
  const box = useRef<HTMLDivElement>(null);
  const [room, setRoom] = useState(900);
  useLayoutEffect(() => {
    if (!box.current) return;
    const watch = new ResizeObserver(([entry]) => setRoom(entry.contentRect.width));
    watch.observe(box.current);
    return () => watch.disconnect();
  }, []);
  const marks = layMarks(lath, build, outlook, { display, width: room });
  const width = Math.max(room, ...marks.map((mark) => mark.x + mark.room + 8));
  useEffect(() => {
    const view = box.current;
    const at = chosen && view?.querySelector<HTMLElement>(`#mark-${CSS.escape(chosen)}`);
    if (!view || !at) return;
    const [from, to] = [at.offsetLeft, at.offsetLeft + at.offsetWidth];
    if (from < view.scrollLeft || to > view.scrollLeft + view.clientWidth)
      view.scrollTo({ left: Math.max(0, from - view.clientWidth / 3) });
  }, [chosen]);
  const done = marks.findLast(({ step }) => step.done);
  const doneTo = done ? Math.min(width - 2, done.x + done.room - 14) : LEFT;
  return (
    <div
      ref={box}
      className="group/lath relative overflow-x-auto overflow-y-hidden"
      style={{ height: TOP + HEIGHT + (width > room ? 36 : 24), marginTop: 2 }}
      data-testid="lath"
    >
      <svg width={width} height={TOP + HEIGHT + 4} className="absolute inset-0" aria-hidden>
        <rect
          x={LEFT}
          y={TOP}
          width={width - LEFT - 1}
          height={HEIGHT}
          rx="3"
          fill="var(--color-lath)"
          stroke="var(--color-lath-line)"
        />
        <LathGrain width={width} />
        {done && (
          <rect
            x={LEFT}
            y={TOP}
            width={doneTo - LEFT}
            height={HEIGHT}
            rx="3"
            fill="var(--color-lath-dark)"
            opacity="0.75"
          />
        )}
        {[0, 1, 2].map((row) => (
          <path key={row} d={pencil(row, marks, width)} fill="none" stroke="#6d6046" strokeWidth="1" />
        ))}
        {marks.map(({ step, x }) => (
          <line
            key={step.id}
            x1={x}
            x2={x}
            y1={TOP}
            y2={TOP + HEIGHT}
            stroke="var(--color-lath-line)"
            strokeWidth="0.8"
          />
        ))}
        {marks
          .filter(({ step }) => step.id === chosen)
          .map(({ x }) => (
            <g key="pin" fill="var(--color-chalk)">
              <path d={`M${x - 6} ${TOP - 9}h12l-6 9z`} />
              <rect x={x - 1.25} y={TOP - 1} width="2.5" height={HEIGHT + 2} />
            </g>
          ))}
      </svg>
      {ROWS.map((row, i) => (
        <span
          key={row}
          className="text-graphite absolute left-5 text-[13px] font-semibold"
          style={{ top: TOP + LINE[i] - 17 }}
        >
          {row}
        </span>
      ))}
      {marks.map((mark, i) => (
        <Fragment key={mark.step.id}>
          <MarkView
            build={build}
            mark={mark}
            chosen={mark.step.id === chosen}
            display={display}
            onChoose={onChoose}
          />
          <AddHere
            x={Math.min(mark.x + mark.room, width - 2)}
            name={`Add a step after ${stepName(mark.step)}`}
            onAdd={() => onAdd(placeAfter(build, mark.step, marks[i + 1]?.step))}
          />
        </Fragment>
      ))}
    </div>
  );
}

/** Where a turn makes one dimension into another, its pencil line crosses over. */
function pencil(row: number, marks: readonly Mark[], width: number): string {
  const y = (r: number) => TOP + LINE[r];
  let path = `M${LEFT + 6} ${y(row)}`;
  for (const { step, x } of marks) {
    const swaps = crossing(step);
    if (!swaps || swaps[row] === row) continue;
    path += ` H${x - 34} C${x - 16} ${y(row)} ${x - 22} ${y(swaps[row])} ${x - 3} ${y(swaps[row])} M${x} ${y(row)}`;
  }
  return `${path} H${width - 8}`;
}

/** Long grain of the lath itself: fine, even lines. */
function LathGrain({ width }: { width: number }) {
  return (
    <g stroke="#c9b078" strokeWidth="0.6" opacity="0.55">
      {[5, 11, 16, 24, 37, 43, 50, 63, 69, 76, 88].map((y, i) => (
        <path
          key={y}
          fill="none"
          d={`M${LEFT + 2} ${TOP + y} C${width * 0.3} ${TOP + y + (i % 3) - 1} ${width * 0.6} ${TOP + y - (i % 2)} ${width - 3} ${TOP + y + 0.6}`}
        />
      ))}
    </g>
  );
}

/** A round plus on the line between two marks: seen when the lath is pointed at, always where there is no pointer. */
function AddHere({ x, name, onAdd }: { x: number; name: string; onAdd: () => void }) {
  return (
    <button
      type="button"
      aria-label={name}
      title={name}
      onClick={onAdd}
      className="border-chalk text-chalk hover:bg-chalk absolute z-10 flex h-6 w-6 items-center justify-center rounded-full border bg-white opacity-0 group-hover/lath:opacity-100 hover:text-white focus-visible:opacity-100 pointer-coarse:opacity-100"
      style={{ left: x - 26, top: TOP + HEIGHT / 2 - 14 }}
    >
      <Plus size={14} aria-hidden />
    </button>
  );
}

function MarkView({
  build,
  mark,
  chosen,
  display,
  onChoose,
}: {
  build: BuildDocument;
  mark: Mark;
  chosen: boolean;
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
      onClick={() => onChoose(step.id)}
      aria-label={markName(build, step, { seen, before, findings, display })}
      aria-current={chosen ? 'step' : undefined}
      data-step={step.id}
      className="hover:bg-chalk/5 absolute rounded-sm text-left"
      style={{ left: x - 6, top: 0, width: room, height: TOP + HEIGHT + 24 }}
      title={
        serious.length ? `${serious.length} ${serious.length === 1 ? 'finding' : 'findings'}` : undefined
      }
    >
      <span
        className={`absolute top-0 left-3 text-[13.5px] font-semibold whitespace-nowrap ${chosen ? 'text-chalk' : 'text-ink'}`}
      >
        <span
          className={`${ringName ? 'border-red text-red rounded-full border-2 px-1.5' : ''} ${step.off ? 'text-graphite font-medium line-through' : ''}`}
        >
          {stepName(step)}
        </span>
        {step.off && <span className="text-graphite ml-1 text-[12px] font-medium">left out</span>}
        {seen && seen.count > 1 && (
          <span className="rule text-graphite ml-1 text-[12px] font-medium">×{seen.count}</span>
        )}
      </span>
      {seen &&
        [0, 1, 2].map((axis) =>
          changed[axis] || ringed(axis) ? (
            <span
              key={axis}
              className="absolute left-[11px] text-[15px] leading-none whitespace-nowrap"
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
              <Measure value={took.mm} display={display} />
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

import { Printer } from 'lucide-react';
import { useMemo, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import type { RackBoard } from '../../../contract/board';
import { type BuildDocument, type Edit, type Goal, GOALS, attempt, isRefused } from '../../../core/document';
import { rips } from '../../../core/steps';
import {
  type BoardLayout,
  dropStrip,
  layAnswer,
  layBoard,
  type Plan,
  settingsOf,
  shortages,
} from '../../../core/stock';
import { counted } from '../../../core/units';
import { problemText, useBoardsQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { jobActions } from '../../app/job';
import { useAppDispatch } from '../../app/store';
import { useRoom } from '../../drawing/use-room';
import { Choice } from '../../parts/Choice';
import { Measure } from '../../parts/Measure';
import { Swatch } from '../../parts/Swatch';
import { JobHeader } from '../job/JobHeader';
import { OpenJob } from '../job/OpenJob';
import { BoardPlan, type Drop } from './BoardPlan';
import { Companions, useCompanions } from './Companions';
import { CutBoards } from './CutBoards';
import { Results } from './Results';
import { Rules } from './Rules';
import { Shortage } from './Shortage';
import { StripCard } from './StripCard';
import { StripLedger } from './StripLedger';
import { TradeOffs } from './TradeOffs';
import { type Breakdown, freeFor, useBreakdown } from './use-breakdown';
import { GOAL_NAMES } from './words';
import { FullScreen } from '../../parts/layout';
import { useFingers } from '../../parts/use-phone';

const NO_BOARDS: RackBoard[] = [];

const title = (name: string) => `Wood for ${name}`;

/** Where a job's strips come from: its boards, broken down. */
export const WoodScreen = () => (
  <OpenJob title={title}>{(id, build) => <Wood key={id} id={id} build={build} />}</OpenJob>
);

function Wood({ id, build }: { id: string; build: BuildDocument }) {
  const dispatch = useAppDispatch();
  const [search] = useSearchParams();
  const read = useCompanions(search.get('with'), id);
  const companions = read.jobs;
  const { data: rack, error } = useBoardsQuery(undefined, { refetchOnMountOrArgChange: true });
  const breakdown = useBreakdown(id, build, companions, read.waiting ? undefined : rack);
  const [chosen, setChosen] = useState<string>();
  const [refused, setRefused] = useState<string>();
  const { plan, running, solve } = breakdown;
  const settings = settingsOf(build);
  const layouts = useMemo(() => plan && layoutsOf(plan), [plan]);
  const findings = useMemo(() => {
    if (!plan || !started(build)) return [];
    const boards = freeFor(rack ?? NO_BOARDS, [id, ...companions.map((companion) => companion.id)]);
    return shortages({ ...plan.problem, boards }, plan.answer);
  }, [plan, build, rack, id, companions]);
  const edit = (one: Edit) => dispatch(jobActions.edited({ edit: one }));
  const setGoal = (goal: Goal) => void solve([{ do: 'setBreakdown', breakdown: { ...settings, goal } }]);
  const drop = ({ strip, board: boardId, x, y }: Drop, snapMm: number) => {
    const wanted = plan?.demand.of.get(strip);
    const board = rack?.find((b) => b.id === boardId) ?? plan?.problem.boards.find((b) => b.id === boardId);
    if (!plan || !wanted || !board) return;
    const problem = { ...plan.problem, boards: [...plan.problem.boards, board] };
    const landed = dropStrip(
      problem,
      layouts?.laid.find((l) => l.board.id === boardId),
      { board, strip: strip, at: { x, y }, snapMm },
    );
    setRefused(landed.ok ? undefined : landed.reason);
    if (!landed.ok) return;
    const { reserved: _r, history: _h, version: _v, ...stock } = board as RackBoard;
    const boards = build.boards.some((b) => b.id === boardId) ? build.boards : [...build.boards, stock];
    const source = { board: boardId, at: landed.at, locked: true };
    void solve([{ do: 'useBoards', boards, strips: { [wanted.slot]: source }, breakdown: settings }]);
  };
  const missing = plan?.answer.missing.length ?? 0;
  return (
    <FullScreen className="min-h-[620px]">
      <JobHeader build={build} />
      <div className="flex flex-wrap items-end gap-2">
        <Link to={`/jobs/${id}`} className="action">
          To the stick
        </Link>
        <Choice
          label="Goal of the breakdown"
          hideLabel
          className="w-56"
          value={settings.goal}
          options={GOALS.map((goal) => ({ value: goal, label: GOAL_NAMES[goal] }))}
          onChange={(goal) => setGoal(goal as Goal)}
        />
        {running ? (
          <button type="button" className="action" onClick={breakdown.stop}>
            Stop, keep the best so far
          </button>
        ) : (
          <button
            type="button"
            className="action action-main"
            disabled={!rack || read.waiting}
            onClick={() => void solve()}
          >
            Break down the boards
          </button>
        )}
        <Progress breakdown={breakdown} />
        {read.waiting && !read.trouble && (
          <span role="status" className="text-graphite text-[14px]">
            Reading the other job …
          </span>
        )}
        <span className="ml-auto flex flex-wrap gap-2">
          <StripLedger build={build} />
          <Companions id={id} />
          <Link to={`/jobs/${id}/wood/sheet?${search}`} className="action">
            <Printer size={15} aria-hidden /> Set-up list
          </Link>
          <CutBoards id={id} build={build} />
        </span>
      </div>
      {(error !== undefined || read.trouble || breakdown.trouble || refused) && (
        <p role="alert" className="text-red text-[14px]">
          {refused ?? breakdown.trouble ?? read.trouble ?? problemText(error)}
        </p>
      )}
      <div className="@container flex min-h-0 flex-1">
        <div className="flex min-h-0 min-w-0 flex-1 flex-col gap-4 @min-[60rem]:flex-row">
          <Boards
            layouts={layouts}
            plan={plan}
            build={build}
            rack={rack ?? NO_BOARDS}
            chosen={chosen}
            onChoose={setChosen}
            onDrop={drop}
          />
          <aside
            aria-label="Breakdown"
            className="sheet flex max-h-[50%] w-full shrink-0 flex-col gap-3 overflow-y-auto p-4 max-desk:max-h-none max-desk:p-3 @min-[60rem]:max-h-none @min-[60rem]:w-[372px]"
          >
            {plan && started(build) && layouts && (
              <Results build={build} plan={plan} layouts={layouts.laid} advice={breakdown.advice} />
            )}
            {missing > 0 && started(build) && (
              <Shortage
                findings={findings}
                advice={breakdown.advice}
                advising={breakdown.advising}
                rack={rack ?? NO_BOARDS}
                onFix={(fix) => void solve([fix])}
              />
            )}
            {plan && (
              <StripCard
                key={chosen}
                build={build}
                plan={plan}
                chosen={chosen}
                onChoose={setChosen}
                rack={rack ?? NO_BOARDS}
                solve={solve}
                drop={drop}
              />
            )}
            {breakdown.advice.tradeOffs.length > 0 && (
              <TradeOffs
                tradeOffs={breakdown.advice.tradeOffs}
                goal={settings.goal}
                onPick={({ goal, answer }) =>
                  void breakdown.use(answer, [{ do: 'setBreakdown', breakdown: { ...settings, goal } }])
                }
              />
            )}
            <Rules
              build={build}
              settings={settings}
              onChange={(next) => edit({ do: 'setBreakdown', breakdown: next })}
            />
          </aside>
        </div>
      </div>
    </FullScreen>
  );
}

/** Whether a breakdown was ever asked for: before that nothing is short. */
const started = (build: BuildDocument): boolean => build.breakdown !== undefined;

/** The plan as boards cut up. A plan made by hand may not be cuttable until it is solved again: said, with the rest drawn. */
function layoutsOf(plan: Plan): { laid: BoardLayout[]; broken: string[] } {
  const broken: string[] = [];
  const laid = plan.problem.boards.flatMap((board) => {
    const cut = attempt(() => layAnswer({ ...plan.problem, boards: [board] }, plan.answer));
    if (!isRefused(cut)) return cut;
    broken.push(board.label);
    return [layBoard(board, [], plan.problem.rules)];
  });
  return { laid, broken };
}

function Progress({ breakdown: { running, plan } }: { breakdown: Breakdown }) {
  if (!running || !plan) return null;
  const share = Math.min(1, running.done / running.of);
  const placed = running.best.places.length;
  return (
    <span className="flex items-center gap-2 text-[14px]" role="status">
      <span className="border-line h-2 w-32 overflow-hidden rounded-full border bg-white">
        <span className="bg-chalk block h-full" style={{ width: `${share * 100}%` }} />
      </span>
      {placed} of {counted(placed + running.best.missing.length, 'strip')} placed, looking for better
    </span>
  );
}

/** A strip that fingers take hold of is at least so high, px, as far as its board then is not longer than four screens. */
const STRIP_PX = 24;

function Boards({
  layouts,
  plan,
  build,
  rack,
  chosen,
  onChoose,
  onDrop,
}: {
  layouts: ReturnType<typeof layoutsOf> | undefined;
  plan: Plan | undefined;
  build: BuildDocument;
  rack: readonly RackBoard[];
  chosen: string | undefined;
  onChoose: (strip: string) => void;
  onDrop: (drop: Drop, snapMm: number) => void;
}) {
  const display = useDisplay();
  const { room, width } = useRoom();
  const longest = Math.max(300, ...(layouts?.laid ?? []).map(({ board }) => board.length.mm));
  const fingers = useFingers();
  const narrowest = Math.min(Infinity, ...(plan?.problem.strips ?? []).map((strip) => strip.width));
  const whole = Math.max(0, (width - 108) / longest);
  const pxPerMm = fingers && whole > 0 ? Math.max(whole, Math.min(4 * whole, STRIP_PX / narrowest)) : whole;
  const slots = new Map(
    build.assemblies.flatMap((assembly) => assembly.slots.map((slot) => [slot.id, slot])),
  );
  const wanted = (strip: string) => plan?.demand.of.get(strip);
  const own = (strip: string) => {
    const of = wanted(strip);
    return of?.job === 0 && of.copy === 0 ? slots.get(of.slot) : undefined;
  };
  const onRack = new Set(rack.map(({ id }) => id));
  const cut = rips(build).every(({ done }) => done);
  return (
    <section
      ref={room}
      aria-label="Boards broken down"
      className="sheet min-w-0 flex-1 overflow-auto px-4 py-3"
    >
      {layouts?.laid.length === 0 && (
        <div className="text-graphite max-w-lg p-4">
          <p className="pb-2">
            No strip of this job has a board yet. It needs{' '}
            {counted(plan?.problem.strips.length ?? 0, 'strip')};{' '}
            {counted(rack.filter(({ reserved }) => !reserved).length, 'free board')} on the rack.
          </p>
          <p>
            “Break down the boards” finds which board gives which strip, clear of the faults its faces may not
            show.
          </p>
        </div>
      )}
      {layouts && layouts.broken.length > 0 && (
        <p role="alert" className="text-red pb-2 text-[14px]">
          Board {layouts.broken.join(', ')} cannot be cut as the strips lie on it now. Break down the boards
          again.
        </p>
      )}
      <ol className="flex flex-col gap-4 pt-2">
        {pxPerMm > 0 &&
          layouts?.laid.map((layout) => (
            <li key={layout.board.id} className="flex items-center gap-3">
              <span className="bg-sheet sticky left-0 z-10 w-[58px] shrink-0 leading-tight">
                <span className="rule block text-[17px]">{layout.board.label}</span>
                <span className="text-graphite flex items-center gap-1 text-[12.5px]">
                  <Swatch species={layout.board.species} size={10} />
                  <Measure value={layout.board.thickness} display={display} />
                </span>
                {rack.length > 0 && !onRack.has(layout.board.id) && (
                  <span className={`block text-[12px] ${cut ? 'text-graphite' : 'text-red'}`}>
                    {cut ? 'cut' : 'not on the rack'}
                  </span>
                )}
              </span>
              <BoardPlan
                layout={layout}
                pxPerMm={pxPerMm}
                display={display}
                labelOf={(strip) => {
                  const of = wanted(strip);
                  return of?.of ? `${of.label}, ${of.of}` : (of?.label ?? '');
                }}
                lockedOf={(strip) => own(strip)?.strip?.locked ?? false}
                movable={(strip) => own(strip) !== undefined}
                chosen={chosen}
                onChoose={onChoose}
                onDrop={(drop) => onDrop(drop, 10 / pxPerMm)}
              />
            </li>
          ))}
      </ol>
    </section>
  );
}

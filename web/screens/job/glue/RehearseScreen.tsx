import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { BuildDocument, TimedLap } from '../../../../core/document';
import type { PlannedGlueUp } from '../../../../core/glueup';
import type { GlueStep } from '../../../../core/steps';
import { minutesText } from '../../../../core/units';
import { shopTime } from '../../../app/clock';
import { jobActions } from '../../../app/job';
import { useAppDispatch, useAppSelector } from '../../../app/store';
import { PaceBar } from '../../../drawing/PaceBar';
import { OpenJob } from '../OpenJob';
import { Screen } from '../../../parts/layout';
import { ReadyList } from './ReadyList';
import { usePlanGlue } from './parts';
import { Working } from '../../../parts/Working';

const title = (name: string) => `Rehearse ${name}`;

/** A glue-up rehearsed dry at the bench: what must lie ready, then one act after the other with large buttons, timed. */
export const RehearseScreen = () => (
  <OpenJob title={title}>{(id, build) => <Rehearsing id={id} build={build} />}</OpenJob>
);

function Rehearsing({ id, build }: { id: string; build: BuildDocument }) {
  const { step: stepId } = useParams();
  const dispatch = useAppDispatch();
  const step = build.steps.find((each) => each.id === stepId);
  const planned = useAppSelector(({ job }) => job.planned);
  const view = useAppSelector(({ job }) => job.glueView);
  const chosen = useAppSelector(({ job }) => job.step);
  useEffect(() => {
    if (!stepId) return;
    if (chosen !== stepId) dispatch(jobActions.stepChosen(stepId));
    if (view === 'layUp') dispatch(jobActions.glueViewed('pace'));
  }, [stepId, chosen, view, dispatch]);
  if (step?.kind !== 'glue')
    return (
      <p role="alert" className="p-8">
        There is no such glue-up in this job.{' '}
        <Link className="text-chalk underline" to={`/jobs/${id}`}>
          Back to the job
        </Link>
      </p>
    );
  if (planned?.step === step.id && !planned.plan)
    return (
      <p role="alert" className="p-8">
        There is no joint to rehearse in this glue-up.{' '}
        <Link className="text-chalk underline" to={`/jobs/${id}`}>
          Back to the job
        </Link>
      </p>
    );
  if (planned?.step !== step.id || !planned.plan)
    return <Working className="p-8">Planning the glue-up …</Working>;
  return <Bench key={step.id} id={id} build={build} step={step} planned={planned.plan} />;
}

interface Props {
  id: string;
  build: BuildDocument;
  step: GlueStep;
  planned: PlannedGlueUp;
}

function Bench({ id, build, step, planned }: Props) {
  const planGlue = usePlanGlue(step);
  const kept = step.plan?.rehearsal;
  const { acts } = planned.rehearsal;
  const broken =
    kept && !kept.whole && kept.laps.length > 0 && kept.laps.length < acts.length ? kept : undefined;
  const [laps, setLaps] = useState<TimedLap[]>();
  const [ticked, setTicked] = useState<ReadonlySet<string>>(new Set());
  const keep = (next: TimedLap[]) => {
    setLaps(next);
    planGlue(
      {
        rehearsal: { at: shopTime(), laps: next, whole: next.length >= acts.length },
      },
      'rehearsal',
    );
  };
  return (
    <Screen className="flex max-w-[980px]! flex-col gap-5">
      <header className="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-2">
        <h1 className="text-[24px] font-semibold">
          {planned.glueUp.name}, a dry run{' '}
          <span className="text-graphite text-[16px] font-normal">{build.name}</span>
        </h1>
        <Link className="action h-11 text-[16px]" to={`/jobs/${id}`}>
          Back to the job
        </Link>
      </header>
      {laps === undefined ? (
        <>
          <ReadyList
            large
            items={planned.ready}
            ticked={ticked}
            onTick={(item) =>
              setTicked((now) => {
                const next = new Set(now);
                if (!next.delete(item)) next.add(item);
                return next;
              })
            }
          />
          <p className="text-[16px]">
            {acts.length} acts, about {minutesText(planned.rehearsal.totalMin)}. No glue: go through every
            motion, and press the button when each is done.
          </p>
          <div className="flex gap-3">
            <button
              type="button"
              className="action action-main h-14 px-6 text-[19px]"
              onClick={() => setLaps([])}
            >
              Begin the dry run
            </button>
            {broken && (
              <button
                type="button"
                className="action h-14 px-6 text-[19px]"
                onClick={() => setLaps(broken.laps)}
              >
                Go on at act {broken.laps.length + 1}
              </button>
            )}
          </div>
          {broken && (
            <p className="text-graphite text-[15px]" role="status">
              The last dry run was interrupted after {broken.laps.length} of {acts.length} acts; they are
              kept.
            </p>
          )}
        </>
      ) : laps.length < acts.length ? (
        <Running key={laps.length} planned={planned} laps={laps} onLap={keep} />
      ) : (
        <Finished planned={planned} laps={laps} onAgain={() => setLaps([])} id={id} />
      )}
    </Screen>
  );
}

/** One act at a time, with its own time and the glue's. */
function Running({
  planned,
  laps,
  onLap,
}: {
  planned: PlannedGlueUp;
  laps: TimedLap[];
  onLap: (laps: TimedLap[]) => void;
}) {
  const { acts, times } = planned.rehearsal;
  const act = acts[laps.length];
  const [begun] = useState(() => performance.now());
  const [now, setNow] = useState(begun);
  useEffect(() => {
    const timer = setInterval(() => setNow(performance.now()), 200);
    return () => clearInterval(timer);
  }, []);
  const seconds = (now - begun) / 1000;
  const before = laps.reduce((sum, lap) => sum + lap.seconds, 0);
  const total = (before + seconds) / 60;
  const share = times ? total / times.closedMin : 0;
  const next = acts[laps.length + 1];
  return (
    <section aria-label="Dry run" className="flex flex-col items-center gap-5 pt-4 text-center">
      <p className="text-graphite text-[17px]">
        Act {laps.length + 1} of {acts.length}
      </p>
      <p className="text-[40px] leading-tight font-semibold" data-testid="act">
        {act.words}
      </p>
      <p className="rule text-[56px] leading-none" role="timer">
        {clock(seconds)}
      </p>
      <p className="text-[16px]">
        planned {clock(act.minutes * 60)}, in all {clock(total * 60)}
        {times && ` of ${minutesText(times.closedMin)}`}
      </p>
      {times && (
        <div className="border-line h-5 w-full overflow-hidden rounded border bg-white" aria-hidden>
          <div
            className={`h-full ${share > 1 ? 'bg-red' : 'bg-graphite'}`}
            style={{ width: `${Math.min(100, share * 100)}%` }}
          />
        </div>
      )}
      {share > 1 && (
        <p role="alert" className="text-red text-[18px] font-medium">
          ✕ With glue it would have set by now.
        </p>
      )}
      <button
        type="button"
        className="action action-main h-24 w-full max-w-[520px] justify-center text-[30px]"
        onClick={() =>
          onLap([...laps, { act: act.act, seconds: Math.round((performance.now() - begun) / 10) / 100 }])
        }
      >
        Done{next ? '' : ', the last'}
      </button>
      <p className="text-graphite text-[17px]">{next ? `Then: ${next.words.toLowerCase()}` : ''}</p>
      {laps.length > 0 && (
        <button type="button" className="action h-11 text-[16px]" onClick={() => onLap(laps.slice(0, -1))}>
          One act back
        </button>
      )}
    </section>
  );
}

const clock = (seconds: number): string =>
  `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`;

/** What the dry run took against the plan, and the shop's pace learned from it. */
function Finished({
  planned,
  laps,
  id,
  onAgain,
}: {
  planned: PlannedGlueUp;
  laps: TimedLap[];
  id: string;
  onAgain: () => void;
}) {
  const minutes = laps.reduce((sum, lap) => sum + lap.seconds, 0) / 60;
  const { rehearsal } = planned;
  const fits = !rehearsal.times || minutes <= rehearsal.times.closedMin;
  return (
    <section aria-label="Dry run done" className="flex flex-col gap-4">
      <p className="text-[26px] font-semibold">
        {clock(minutes * 60)} from first to last act;{' '}
        <span className={fits ? 'text-green' : 'text-red'}>
          {fits ? '✓ in time' : '✕ too slow for the glue'}
        </span>
      </p>
      <p className="text-[16px]">
        Planned were {clock(rehearsal.totalMin * 60)}
        {rehearsal.times && `; the glue gives ${minutesText(rehearsal.times.closedMin)}`}.
      </p>
      <PaceBar rehearsal={rehearsal} width={640} />
      <p className="text-[16px]">
        Every act of it counts in{' '}
        <Link className="text-chalk underline" to="/log">
          the log
        </Link>
        : once dry runs of three jobs say so, this shop’s own minutes are offered there.
      </p>
      <div className="flex flex-wrap gap-3">
        <button type="button" className="action h-14 px-6 text-[18px]" onClick={onAgain}>
          Once more
        </button>
        <Link className="action h-14 px-6 text-[18px]" to={`/jobs/${id}`}>
          Back to the job
        </Link>
      </div>
    </section>
  );
}

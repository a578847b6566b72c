import { useEffect, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { bindingGate, type BenchStep, goesOnAt, handsOn, placeOf, whoDid, worked } from '../../../core/bench';
import { type BuildDocument, phraseText, type Step } from '../../../core/document';
import { counted, minutesText } from '../../../core/units';
import { useDisplay } from '../../app/display';
import { jobActions } from '../../app/job';
import { useAppDispatch, useAppSelector } from '../../app/store';
import { JobPicture } from '../../drawing/JobPicture';
import { lazily } from '../../parts/lazily';
import { FullScreen } from '../../parts/layout';
import { useNow } from '../../parts/use-now';
import { Working } from '../../parts/Working';
import { Failures } from '../failed/Failures';
import { OpenJob } from '../job/OpenJob';
import { Notes } from '../notes/Notes';
import { Checks } from './Checks';
import { Figure } from './Figure';
import { localZone } from '../calendar/calendar-worker';
import { when } from '../today/moment';
import { GateWindow, leftText } from './GateWindow';
import { Readings } from './Readings';
import { useAwake } from './use-awake';
import { useBenchStep } from './use-bench-step';
import { type StepWork, useStepWork } from './use-step-work';
import { useWho, WhoChoice } from './WhoChoice';
import { WorkTray } from './WorkTray';

const FailureWindow = lazily(() => import('../failed/FailureWindow'), 'FailureWindow');
const title = (name: string) => `${name}, at the bench`;
const SECOND = 1000;

/** A job at the bench: one thing to do at a time, to be read from two metres away. */
export const AtBench = () => (
  <OpenJob title={title}>{(id, build) => <AtWork id={id} build={build} />}</OpenJob>
);

function AtWork({ id, build }: { id: string; build: BuildDocument }) {
  const [params, setParams] = useSearchParams();
  const dispatch = useAppDispatch();
  useAwake();
  const asked = params.get('step');
  const all = worked(build);
  // Without a step in the address it goes on where hands were last, on whichever device that was.
  const step = all.find((each) => each.id === asked) ?? goesOnAt(build) ?? all.at(-1);
  const stepId = step?.id;
  useEffect(() => {
    if (stepId) dispatch(jobActions.stepChosen(stepId));
  }, [stepId, dispatch]);
  const go = (to: Step | undefined) => setParams(to ? { step: to.id } : {}, { replace: true });
  if (!step)
    return (
      <FullScreen>
        <h1 className="text-[24px] font-semibold">{build.name}</h1>
        <p className="text-[20px]">There is no step to do in this job yet.</p>
        <Link className="action h-14 self-start px-5 text-[18px]" to={`/jobs/${id}`}>
          To the plan
        </Link>
      </FullScreen>
    );
  const at = all.indexOf(step);
  return (
    <Opened
      key={step.id}
      id={id}
      build={build}
      step={step}
      before={all[at - 1]}
      after={all.slice(at + 1).find(({ done }) => !done) ?? all.find((each) => !each.done && each !== step)}
      go={go}
    />
  );
}

interface Props {
  id: string;
  build: BuildDocument;
  step: Step;
  before: Step | undefined;
  after: Step | undefined;
  go: (to: Step | undefined) => void;
}

function Opened(props: Props) {
  const { id, build, step } = props;
  const known = useBenchStep(build, step.id);
  const sheet = known?.sheet;
  const now = useNow(SECOND);
  const gates = (sheet?.gates ?? []).map(({ name, step: of, kind, until }) => ({
    key: `${id}/${of}:${kind}`,
    words: `${name}: the wait is over`,
    until,
  }));
  return (
    <main id="work" data-bench-step={step.id} tabIndex={-1} className="bg-sheet flex min-h-dvh flex-col">
      <WorkTray
        job={id}
        title={build.name}
        place={`${sheet?.title ?? ''}, ${placeOf(build, step.id)}`}
        gates={gates}
        now={now}
      />
      {sheet ? (
        <OneStep {...props} sheet={sheet} now={now} />
      ) : known?.why ? (
        <p role="alert" className="p-6 text-[20px]">
          {known.why}
        </p>
      ) : (
        <Working className="p-6">Looking at the step …</Working>
      )}
    </main>
  );
}

function OneStep({
  id,
  build,
  step,
  before,
  after,
  go,
  sheet,
  now,
}: Props & { sheet: BenchStep; now: number }) {
  const display = useDisplay();
  const someone = useWho();
  const who = someone.who?.name;
  const work = useStepWork(step, sheet, who);
  const [asking, setAsking] = useState(false);
  const [failed, setFailed] = useState(false);
  const [checking, setChecking] = useState(false);
  const gate = step.done || work.running ? undefined : bindingGate(sheet.gates, now, step.early);
  const { say, dial, reads, takesMm, leavesMm } = sheet.operations[work.shown];
  const many = sheet.operations.length;
  const begin = () => (gate ? setAsking(true) : work.begin());
  return (
    <>
      <div className="flex flex-1 flex-col gap-5 px-6 pt-5 pb-4 max-desk:gap-4 max-desk:px-4">
        <p aria-live="polite" className="text-[34px] leading-tight font-semibold max-desk:text-[26px]">
          {many > 1 && (
            <span className="text-graphite rule pr-3 text-[0.8em]">
              {work.shown + 1} of {many}
            </span>
          )}
          {phraseText(say, display)}
        </p>
        <div className="flex flex-wrap items-start gap-x-10 gap-y-4">
          {dial && <Figure large name={dial.name} value={dial.value} {...(reads ? { reads } : {})} />}
          {takesMm !== undefined && <Figure name="this pass takes" value={{ mm: takesMm }} />}
          {leavesMm !== undefined && <Figure name="leaves" value={{ mm: leavesMm }} />}
          <div className="desk:ml-auto h-44 w-[320px] max-w-full max-desk:h-28 max-desk:w-full" aria-hidden>
            <JobPicture build={build} step={step.id} />
          </div>
        </div>
        <WhoChoice {...someone} sheet={sheet} />
        <Standing step={step} sheet={sheet} gate={gate} now={now} />
        <div className="text-[17px] empty:hidden">
          <Failures build={build} step={step.id} now={now} />
        </div>
        {/* Before the caution: what will not go over this machine is known before hands are at it. */}
        <Ahead step={step.id} />
        {sheet.caution && !step.done && (
          <p className="border-red bg-red-wash border-l-[6px] px-5 py-3 text-[19px] max-desk:px-3 max-desk:text-[17px]">
            <strong className="font-semibold">Caution.</strong> {sheet.caution}
          </p>
        )}
        {(sheet.marks.length > 0 || sheet.note) && (
          <p className="text-[18px]">
            {sheet.marks.length > 0 && (
              <>
                <strong className="font-semibold">Look for:</strong> {sheet.marks.join(', ')}.{' '}
              </>
            )}
            {sheet.note}
          </p>
        )}
        {/* Between two passes, or with a glue-up half laid, a piece is not yet what the step leaves: nothing is read of it. */}
        {(step.done || work.shown + 1 >= many || (leavesMm === undefined && sheet.pieces.length > 1)) && (
          <>
            <Readings build={build} sheet={sheet} who={who} listens={!checking} />
            <Checks sheet={sheet} who={who} onAsking={setChecking} />
          </>
        )}
        <div className="text-[17px]">
          <Notes
            place={{ job: id, step: step.id }}
            build={build}
            pieces={sheet.pieces.map((piece) => piece.id)}
            who={who}
            heading="h2"
          />
        </div>
      </div>
      <Fields
        work={work}
        step={step}
        many={many}
        gateLeft={gate && leftText(gate.until, now)}
        onBegin={begin}
        onBack={() => (work.done > 0 && !step.done ? work.untick() : go(before))}
        canBack={(work.done > 0 && !step.done) || before !== undefined}
        onDone={() => {
          const isLast = work.done + 1 >= many;
          work.tick();
          if (isLast && after) go(after);
        }}
        onNext={after && (() => go(after))}
        onFailed={() => setFailed(true)}
      />
      {failed && (
        <FailureWindow
          build={build}
          step={step.id}
          {...(who ? { who } : {})}
          onClose={() => setFailed(false)}
        />
      )}
      {asking && gate && (
        <GateWindow
          gate={gate}
          now={now}
          onWait={() => setAsking(false)}
          onBegin={() => {
            setAsking(false);
            work.begin(gate);
          }}
        />
      )}
    </>
  );
}

/** Where the step stands: what it waits for, what comes before it, how long hands were on it, what was written down. */
function Standing({
  step,
  sheet,
  gate,
  now,
}: {
  step: Step;
  sheet: BenchStep;
  gate: BenchStep['gates'][number] | undefined;
  now: number;
}) {
  const hands = handsOn(step, now);
  return (
    <div className="text-[19px] max-desk:text-[17px]" data-testid="standing">
      {gate && (
        <p role="status" className="text-red font-medium">
          Wait {leftText(gate.until, now)}, until {when(gate.until, now, localZone())}: {gate.name}.
        </p>
      )}
      {!step.done && sheet.before.length > 0 && (
        <p className="text-red font-medium">Not done yet, and comes before it: {sheet.before.join(', ')}.</p>
      )}
      {step.done && <p className="text-green font-medium">✓ This step is done.</p>}
      {hands > 0 && (
        <p className="text-graphite">
          Hands on it: <span className="rule">{minutesText(Math.max(1, Math.round(hands / 60_000)))}</span>
          {whoDid(step).length > 0 && ` (${whoDid(step).join(', ')})`}
        </p>
      )}
      {(step.early ?? []).map(({ at, until, wait, who }) => (
        <p key={at} className="text-graphite">
          Begun {leftText(Date.parse(until), Date.parse(at))} early{who && ` by ${who}`}: {wait}.
        </p>
      ))}
      {step.done &&
        sheet.after.map(({ words, hours }) => (
          <p key={words} className="text-graphite">
            {words}: <span className="rule">{minutesText(hours * 60)}</span>
          </p>
        ))}
    </div>
  );
}

/** What will not work from here on, as it is predicted with what was read: counted, with the way to it. */
function Ahead({ step }: { step: string }) {
  const findings = useAppSelector(({ job }) => job.outlook?.findings);
  const id = useAppSelector(({ job }) => job.id);
  const steps = useAppSelector(({ job }) => job.build?.steps);
  const display = useDisplay();
  const order = (steps ?? []).map((each) => each.id);
  const ahead = (findings ?? []).filter(
    ({ severity, step: of }) =>
      severity !== 'note' && (of === '' || order.indexOf(of) >= order.indexOf(step)),
  );
  if (ahead.length === 0) return null;
  return (
    <p role="status" className="text-[17px]">
      <Link className="press text-red font-medium underline" to={`/jobs/${id}?step=${ahead[0].step || step}`}>
        {counted(ahead.length, 'thing')} to look at from here on
      </Link>
      <span className="block">{phraseText(ahead[0].message, display)}</span>
    </p>
  );
}

/** The large fields: back, go on, what else hands may want just now, and what failed. */
function Fields({
  work,
  step,
  many,
  gateLeft,
  canBack,
  onBegin,
  onBack,
  onDone,
  onNext,
  onFailed,
}: {
  work: StepWork;
  step: Step;
  many: number;
  gateLeft: string | undefined;
  canBack: boolean;
  onBegin: () => void;
  onBack: () => void;
  onDone: () => void;
  onNext: (() => void) | undefined;
  onFailed: () => void;
}) {
  const field =
    'flex min-h-32! items-center justify-center px-3 text-[28px] font-semibold disabled:opacity-40 max-desk:min-h-20! max-desk:px-2 max-desk:text-[20px]';
  const isLast = work.done + 1 >= many;
  const main = step.done
    ? { words: onNext ? 'Next step ›' : 'All steps are done', press: onNext }
    : gateLeft
      ? { words: `Wait ${gateLeft} …`, press: onBegin }
      : work.running
        ? { words: isLast ? 'Step is done ›' : `${work.shown + 1} of ${many} is done ›`, press: onDone }
        : { words: work.begun ? 'Go on' : 'Begin', press: onBegin };
  return (
    <div
      role="group"
      aria-label="What is done"
      className="border-line bg-sheet sticky bottom-0 grid grid-cols-[minmax(min-content,1fr)_minmax(min-content,2fr)_minmax(min-content,1fr)_minmax(min-content,1fr)] border-t max-desk:grid-cols-[repeat(3,minmax(min-content,1fr))]"
    >
      <button type="button" className={`${field} text-graphite`} disabled={!canBack} onClick={onBack}>
        ‹ Back
      </button>
      <button
        type="button"
        className={`${field} max-desk:order-first max-desk:col-span-3 ${gateLeft ? 'bg-faint text-ink' : 'bg-chalk text-white'}`}
        disabled={!main.press}
        onClick={main.press}
      >
        {main.words}
      </button>
      {step.done ? (
        <button type="button" className={`${field} text-graphite text-[20px]!`} onClick={work.notDone}>
          Not done after all
        </button>
      ) : (
        <button
          type="button"
          className={`${field} text-graphite`}
          disabled={!work.running}
          onClick={work.pause}
        >
          Pause
        </button>
      )}
      <button type="button" className={`${field} text-red`} onClick={onFailed}>
        It failed …
      </button>
    </div>
  );
}

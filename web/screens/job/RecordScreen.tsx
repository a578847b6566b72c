import { nameWindow } from '../../app/title';
import { Printer, Repeat } from 'lucide-react';
import { useEffect, useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import type { JobReply } from '../../../contract/api';
import { handsOn, whoDid } from '../../../core/bench';
import { costOf } from '../../../core/cost';
import { type EarlierJob, failureWords, pieceNumber, type Step } from '../../../core/document';
import { adhesiveFor, glueUpOf } from '../../../core/glueup';
import { type LogLine, linesOf } from '../../../core/log';
import { run } from '../../../core/run';
import type { Fact, Timeline } from '../../../core/steps';
import { stepTitle } from '../../../core/steps';
import { type Display, lengthText, minutesText, moneyText, temperatureText } from '../../../core/units';
import { careOf, laidNames, settingSheet } from '../../../core/view';
import { speciesName } from '../../../core/wood/common';
import { problemText, useJobQuery, useJobsQuery, useKitQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { useNotes } from '../../app/notes';
import '../../app/open-job';
import { JobPicture } from '../../drawing/JobPicture';
import { lazily } from '../../parts/lazily';
import { Bar, Columns, Screen } from '../../parts/layout';
import { Letterhead } from '../../parts/Letterhead';
import { Words } from '../../parts/Words';
import { hasPhoto, Picture } from '../notes/Picture';
import { Facts } from './Facts';
import { SquareCode } from './SquareCode';

const AgainWindow = lazily(() => import('./AgainWindow'), 'AgainWindow');

const whenText = (at: string): string =>
  new Date(at).toLocaleString('sv', { dateStyle: 'short', timeStyle: 'short' });

/** From the first day to the last, or the one day. */
const daysText = (days: readonly string[]): string => {
  const [first, last] = [days[0].slice(0, 10), days[days.length - 1].slice(0, 10)];
  return first === last ? `on ${first}` : `from ${first} to ${last}`;
};

/** Readings, checks and times of one step, as the log has them. */
function StepLines({ lines, display }: { lines: readonly LogLine[]; display: Display }) {
  if (lines.length === 0) return null;
  return (
    <ul className="text-[14px]">
      {lines.map((line) => (
        <li key={line.id}>
          {line.words ??
            (line.kind === 'minutes' ? (
              `Hands: ${minutesText(line.measured ?? 0)}, planned ${minutesText(line.predicted ?? 0)}`
            ) : (
              <>
                {line.dimension}: <Words phrase={[{ fine: line.measured ?? 0 }]} display={display} />, planned{' '}
                <Words phrase={[{ fine: line.predicted ?? 0 }]} display={display} />
              </>
            ))}
          <span className="text-graphite">
            {' '}
            · {[whenText(line.at), line.who, line.gauge].filter(Boolean).join(', ')}
          </span>
        </li>
      ))}
    </ul>
  );
}

/** Names by which a machine reaches only itself. */
const LOOPBACK = /^(localhost|127\.|\[?::1)/;

const NO_FACTS: readonly Fact[] = [];

/** The parts of a glue-up in the order in which they lie, numbered. */
const laidText = (names: readonly string[]): string => names.map((name, i) => `${i + 1} ${name}`).join('; ');

/** The glue of a glue-up, with the air it was planned in. */
function glueText(step: Step, { build }: JobReply, timeline: Timeline, display: Display): string | undefined {
  const glueUp = glueUpOf(build, timeline, step.id);
  const glue = glueUp && adhesiveFor(glueUp, build.shop);
  if (!glue) return undefined;
  const { climate } = build.shop;
  const bottle = build.shop.adhesives?.find(({ name }) => name === glue.name);
  return [
    glue.name,
    bottle?.batch && `batch ${bottle.batch}`,
    bottle?.expires && `to be used by ${bottle.expires}`,
    climate && `air ${temperatureText(climate.temperatureC, display)}, ${Math.round(climate.humidityPct)} %`,
  ]
    .filter(Boolean)
    .join('; ');
}

function StepRecord({
  step,
  job,
  timeline,
  lines,
  facts,
  display,
}: {
  step: Step;
  job: JobReply;
  timeline: Timeline;
  lines: readonly LogLine[];
  facts: readonly Fact[];
  display: Display;
}) {
  const { build } = job;
  const entry = timeline.steps.find(({ id }) => id === step.id);
  const glue = glueText(step, job, timeline, display);
  const failures = (build.failures ?? []).filter((failure) => failure.step === step.id);
  const minutes = step.work ? handsOn(step, Date.parse(step.work.at(-1)?.to ?? '') || 0) / 60_000 : 0;
  return (
    <section
      aria-label={stepTitle(build, step)}
      data-record={step.id}
      className="border-line flex break-inside-avoid flex-wrap gap-4 border-t py-3"
    >
      <div className="h-28 w-[200px] max-w-full">
        {entry && <JobPicture build={build} step={step.id} atOnce />}
      </div>
      <div className="flex min-w-[min(100%,18rem)] flex-1 flex-col gap-1">
        <h3 className="font-semibold">{stepTitle(build, step)}</h3>
        <p className="text-[14px]">
          {step.off ? 'Left out.' : step.done ? 'Done' : 'Not done yet.'}
          {step.done && step.doneAt && ` ${whenText(step.doneAt)}`}
          {whoDid(step).length > 0 && `, by ${whoDid(step).join(', ')}`}
          {minutes > 0 && `, ${minutesText(minutes)} of work`}
          {step.done ? '.' : ''}
          {entry && ` Comes out ${entry.greatest.map((mm) => lengthText(mm, display)).join(' × ')}.`}
        </p>
        {glue && <p className="text-[14px]">Glue: {glue}</p>}
        {entry?.laid && entry.laid.length > 1 && (
          <p className="text-[14px] break-words">
            Laid in this order: {laidText(laidNames(build, entry, display))}
          </p>
        )}
        <Facts facts={facts} display={display} />
        <StepLines lines={lines.filter(({ kind }) => kind !== 'failure')} display={display} />
        {failures.map((failure) => (
          <p key={failure.id} className="text-red text-[14px]">
            {failureWords(failure)}
            {failure.at && `, ${whenText(failure.at)}`}
            {failure.warned && `; the plan had ${failure.warned.length > 0 ? '' : 'not '}warned of it`}
          </p>
        ))}
        {(step.early ?? []).map(({ at, wait }) => (
          <p key={at} className="text-[14px]">
            Begun early, {whenText(at)}: {wait}
          </p>
        ))}
        {step.note && <p className="text-[14px]">{step.note}</p>}
      </div>
    </section>
  );
}

function Boards({ job, display }: { job: JobReply; display: Display }) {
  const { boards, assemblies } = job.build;
  return (
    <section aria-labelledby="record-boards" className="break-inside-avoid py-3">
      <h2 id="record-boards" className="text-[17px] font-semibold">
        Boards and lay-up
      </h2>
      {boards.length === 0 && <p className="text-[14px]">No boards of the rack were put to this job.</p>}
      <ul className="text-[14px]">
        {boards.map((board) => (
          <li key={board.id}>
            {board.label}: {speciesName(board.species)},{' '}
            {[board.length, board.width, board.thickness]
              .map(({ mm }) => lengthText(mm, display))
              .join(' × ')}
            {board.moisturePct !== undefined && `, ${board.moisturePct} % moist`}
            {board.arrived && `, came ${board.arrived}`}
          </li>
        ))}
      </ul>
      {assemblies.map(({ id, name, slots }) => (
        <details key={id} className="py-1 text-[14px]" open={slots.length <= 40}>
          <summary className="min-h-6 cursor-pointer font-medium pointer-coarse:leading-11">
            {name}, from the far edge
          </summary>
          <ol className="list-decimal pl-6">
            {slots.map((slot) => (
              <li key={slot.id}>
                {speciesName(slot.species)}, {lengthText(slot.width.mm, display)} wide
                {slot.strip?.board &&
                  `, of ${boards.find((board) => board.id === slot.strip?.board)?.label ?? 'a board'}`}
              </li>
            ))}
          </ol>
        </details>
      ))}
    </section>
  );
}

function Photos({ job }: { job: string }) {
  const of = useMemo(() => ({ job }), [job]);
  const { notes } = useNotes(of);
  const shown = notes.filter((note) => !note.removed);
  if (shown.length === 0) return null;
  return (
    <section aria-labelledby="record-photos" className="py-3">
      <h2 id="record-photos" className="pb-2 text-[17px] font-semibold">
        Photos and notes
      </h2>
      <Columns list least={9} most={4} gap={0.75}>
        {shown.map((note) => (
          <li key={note.id} className="break-inside-avoid text-[13.5px]">
            {hasPhoto(note) && (
              <Picture
                note={note}
                alt={note.words || 'A photo of the work'}
                size="small"
                className="w-full"
              />
            )}
            {note.words} <span className="text-graphite">{whenText(note.at)}</span>
          </li>
        ))}
      </Columns>
    </section>
  );
}

/** The piece that it was made again from; its record, where this shop has it. */
function Earlier({ earlier: { job, name } }: { earlier: EarlierJob }) {
  const { data: jobs } = useJobsQuery();
  const gone = jobs ? ': this shop has that job no more' : '';
  return (
    <p className="text-[14.5px]" data-testid="earlier">
      Made again from{' '}
      {jobs?.some(({ id }) => id === job) ? (
        <Link className="text-chalk underline" to={`/jobs/${job}/record`}>
          {name}, {pieceNumber(job)}
        </Link>
      ) : (
        <>
          {name}, {pieceNumber(job)}
          {gone}
        </>
      )}
    </p>
  );
}

/** The record of a piece: everything that was done to it, on one page, with its number and a code that opens it. */
export function RecordScreen() {
  const { id = '' } = useParams();
  const display = useDisplay();
  const { data: job, error } = useJobQuery(id, { refetchOnMountOrArgChange: true });
  const { data: kit } = useKitQuery();
  const [again, setAgain] = useState(false);
  useEffect(() => {
    if (job) nameWindow(`Record, ${job.name}`);
  }, [job]);
  const timeline = useMemo(() => job && run(job.build), [job]);
  const settings = useMemo(() => job && timeline && settingSheet(job.build, timeline), [job, timeline]);
  const lines = useMemo(() => (job ? linesOf(job.build, job.changed) : []), [job]);
  if (error)
    return (
      <p role="alert" className="p-8">
        {problemText(error)}
      </p>
    );
  if (!job || !timeline || !kit) return <p className="text-graphite p-8">Opening the job …</p>;
  const { build } = job;
  const number = pieceNumber(id);
  const address = `${location.origin}/jobs/${id}/record`;
  const cost = costOf(build, timeline, kit.shop);
  const done = build.steps.filter((step) => step.done);
  const days = done.flatMap(({ doneAt }) => doneAt ?? []).toSorted();
  const pieces = build.targets[0]?.quantity ?? 1;
  return (
    <Screen className="max-w-[980px]! bg-white print:max-w-none!">
      <style>{'@page { margin: 14mm; }'}</style>
      <Bar className="pb-3 print:hidden">
        <Link className="action" to={`/jobs/${id}`}>
          To the job
        </Link>
        <button type="button" className="action" onClick={() => setAgain(true)}>
          <Repeat size={15} aria-hidden /> Make it again …
        </button>
        <button type="button" className="action action-main ml-auto" onClick={() => print()}>
          <Printer size={15} aria-hidden /> Print
        </button>
      </Bar>
      <Letterhead />
      <div className="flex flex-wrap items-start gap-5">
        <div className="min-w-0 flex-1">
          <h1 className="text-[22px] font-semibold break-words">{build.name}</h1>
          <p className="text-graphite">{build.use}</p>
          <p className="py-1">
            Number on the piece:{' '}
            <b className="rule text-[17px] font-semibold" data-testid="number">
              {number}
            </b>
            {pieces > 1 && `, and -1 to -${pieces} for each`}
          </p>
          {build.earlier && <Earlier earlier={build.earlier} />}
          <p className="text-[14.5px]">
            {done.length} of {build.steps.length} steps are done
            {days.length > 0 && `, ${daysText(days)}`}.
            {timeline.finished &&
              ` It comes out ${timeline.finished.greatest.map((mm) => lengthText(mm, display)).join(' × ')}.`}
          </p>
          {cost && (
            <p className="text-[14.5px]">
              Planned at {moneyText(cost.plannedMinor, cost.currency)}
              {cost.realMinor > 0 && `, so far ${moneyText(cost.realMinor, cost.currency)}`}
              {cost.unpriced.length > 0 && '; not all of it has a price'}.
            </p>
          )}
        </div>
        <div className="max-w-36">
          <SquareCode text={address} label="Square code that opens this record" />
          {LOOPBACK.test(location.hostname) && (
            <p className="text-brass text-[13px] print:hidden">
              It opens on this machine only. Open Junta by its name in the network, then print.
            </p>
          )}
        </div>
      </div>
      <div className="h-64 py-2">
        <JobPicture build={build} atOnce />
      </div>
      <Boards job={job} display={display} />
      <section aria-labelledby="record-steps">
        <h2 id="record-steps" className="text-[17px] font-semibold">
          Step by step
        </h2>
        {build.steps.map((step) => (
          <StepRecord
            key={step.id}
            step={step}
            job={job}
            timeline={timeline}
            lines={lines.filter((line) => line.step === step.id)}
            facts={settings?.steps.find((each) => each.step === step.id)?.facts ?? NO_FACTS}
            display={display}
          />
        ))}
      </section>
      <Photos job={id} />
      <section aria-labelledby="record-care" className="break-inside-avoid py-3">
        <h2 id="record-care" className="text-[17px] font-semibold">
          How to look after it
        </h2>
        <ul className="list-disc pl-5 text-[14.5px]">
          {careOf(build, timeline).map((each) => (
            <li key={each}>{each}</li>
          ))}
        </ul>
      </section>
      {again && <AgainWindow job={job} kit={kit.shop} onClose={() => setAgain(false)} />}
    </Screen>
  );
}

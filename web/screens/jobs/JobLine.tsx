import { Ellipsis } from 'lucide-react';
import { memo, type ReactNode, useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import type { JobSummary } from '../../../contract/api';
import { MOST_TAG, MOST_TAGS } from '../../../contract/bounds';
import { DIMENSIONS, JOB_STATES, type JobState } from '../../../core/document';
import { readTags, stateOf } from '../../../core/view/joblist';
import { counted } from '../../../core/units';
import { speciesName } from '../../../core/wood/common';
import { problemText, useJobQuery, useNewJobMutation, usePlaceJobMutation } from '../../app/api';
import { useDisplay } from '../../app/display';
import { newId } from '../../app/ids';
import { JobPicture } from '../../drawing/JobPicture';
import { DropDown } from '../../parts/DropDown';
import { Measure } from '../../parts/Measure';
import { TinyStick } from './TinyStick';
import { readBuild, renameJob } from './renaming';

/** Made once: making one takes a third of a millisecond, and there are hundreds of lines. */
const DAY = new Intl.DateTimeFormat('en', { day: 'numeric', month: 'short' });
/** Pieces are drawn to one scale, so that a board looks small beside a table: mm in one pixel. */
const SHELF_SCALE = 4.3;

/** What was done to a job of the list, for the list to say: the copy may stand where nobody looks. */
export interface Deed {
  kind: 'deleted' | 'duplicated';
  id: string;
  name: string;
}

/** One job of the list: with its picture, or as a line; renamed, duplicated, tagged, put away and deleted in place. */
export const JobLine = memo(function JobLine({
  job,
  look,
  now,
  names,
  onDone,
}: {
  job: JobSummary;
  look: 'pictures' | 'list';
  now: number;
  names: readonly string[];
  onDone: (deed: Deed) => void;
}) {
  const [open, setOpen] = useState<'name' | 'tags'>();
  const [refused, setRefused] = useState<string>();
  const back = useRef<HTMLSpanElement>(null);
  const state = stateOf(job, now);
  const close = () => {
    setOpen(undefined);
    // The field that had the focus is gone: back to what it was opened from.
    setTimeout(() => back.current?.querySelector('button')?.focus());
  };
  const menu = (
    <span ref={back}>
      <JobMenu job={job} names={names} onOpen={setOpen} onDone={onDone} onRefused={setRefused} />
    </span>
  );
  const parts = (
    <>
      {open === 'name' && <NameForm job={job} onClose={close} onRefused={setRefused} />}
      {open === 'tags' && <TagForm job={job} onClose={close} onRefused={setRefused} />}
      {refused && (
        <p role="alert" className="text-red text-[14px]">
          {refused}
        </p>
      )}
    </>
  );
  return look === 'pictures' ? (
    <li className="border-line relative border-t" data-job={job.name}>
      <span className="absolute top-2 right-1 z-10">{menu}</span>
      <Pictured job={job} state={state} />
      {parts}
    </li>
  ) : (
    <li
      className="border-line border-t [contain-intrinsic-size:auto_45px] [content-visibility:auto]"
      data-job={job.name}
    >
      <span className="hover:bg-sheet flex items-center gap-3 px-1.5">
        <Link
          to={`/jobs/${job.id}`}
          className="grid min-h-11 min-w-0 flex-1 grid-cols-[minmax(0,3fr)_minmax(0,2fr)_150px_190px_84px] items-center gap-x-4 py-1 max-desk:grid-cols-1 max-desk:gap-y-0.5"
        >
          <span className="min-w-0">
            <span className="block truncate text-[15px] font-semibold">{job.name}</span>
            <Tags tags={job.tags} />
          </span>
          <span className="text-graphite truncate text-[14px] max-desk:hidden">
            {(job.gist?.woods ?? []).map(speciesName).join(', ')}
          </span>
          <Size job={job} />
          <Stick job={job} state={state} />
          <time
            className="text-graphite rule text-right text-[13px] font-medium max-desk:hidden"
            dateTime={job.changed}
          >
            {DAY.format(new Date(job.changed))}
          </time>
        </Link>
        {menu}
      </span>
      {parts}
    </li>
  );
});

function Pictured({ job, state }: { job: JobSummary; state: JobState }) {
  const box = useRef<HTMLAnchorElement>(null);
  const [seen, setSeen] = useState(false);
  useEffect(() => {
    if (!box.current || seen) return;
    // The build of a job out of sight is not fetched.
    const sight = new IntersectionObserver(([entry]) => entry.isIntersecting && setSeen(true), {
      rootMargin: '300px',
    });
    sight.observe(box.current);
    return () => sight.disconnect();
  }, [seen]);
  const { data } = useJobQuery(job.id, { skip: !seen });
  return (
    <Link
      ref={box}
      to={`/jobs/${job.id}`}
      className="hover:bg-sheet flex min-h-[132px] items-center gap-5 p-2.5 max-desk:flex-col max-desk:items-start max-desk:gap-1"
    >
      <span className="flex h-[212px] w-[330px] max-w-full shrink-0 items-center justify-center overflow-hidden max-desk:h-[150px]">
        {data && <JobPicture build={data.build} mmPerPx={SHELF_SCALE} />}
      </span>
      <span className="flex min-w-0 flex-col gap-1 max-desk:pr-10">
        <span className="text-[17px] leading-tight font-semibold">{job.name}</span>
        <span className="text-graphite text-[14px]">{job.use}</span>
        <Size job={job} />
        <Stick job={job} state={state} />
        <Tags tags={job.tags} />
      </span>
    </Link>
  );
}

function Size({ job: { gist } }: { job: JobSummary }) {
  const display = useDisplay();
  if (!gist?.size) return <span />;
  const { size } = gist;
  return (
    <span className="text-[15px]">
      {DIMENSIONS.map((d, i) => {
        const value = size[d];
        return (
          <span key={d}>
            {i > 0 && ' × '}
            {value ? <Measure value={value} display={display} /> : 'free'}
          </span>
        );
      })}
    </span>
  );
}

function Stick({ job: { gist }, state }: { job: JobSummary; state: JobState }) {
  return (
    <span className="flex min-w-0 flex-wrap items-center gap-2 text-[13.5px]">
      {gist && <TinyStick steps={gist.steps} done={gist.done} />}
      <span
        className={
          state === 'done' ? 'text-green font-medium' : state === 'made' ? 'font-medium' : 'text-graphite'
        }
        title={JOB_STATES[state].says}
      >
        {state === 'done' && '✓ '}
        {JOB_STATES[state].name}
      </span>
    </span>
  );
}

const Tags = ({ tags }: { tags: readonly string[] }) =>
  tags.length > 0 && (
    <span className="flex flex-wrap gap-1">
      {tags.map((tag) => (
        <span key={tag} className="border-line bg-faint rounded border px-1.5 text-[12.5px]">
          {tag}
        </span>
      ))}
    </span>
  );

function JobMenu({
  job,
  names,
  onOpen,
  onDone,
  onRefused,
}: {
  job: JobSummary;
  names: readonly string[];
  onOpen: (what: 'name' | 'tags') => void;
  onDone: (deed: Deed) => void;
  onRefused: (reason: string | undefined) => void;
}) {
  const [place] = usePlaceJobMutation();
  const [newJob] = useNewJobMutation();
  const duplicate = async () => {
    const [{ copyName, duplicateOf }, read] = await Promise.all([
      import('../../../core/document/gist'),
      readBuild(job.id),
    ]);
    if ('error' in read) return onRefused(problemText(read.error));
    const { data: made, error } = await newJob({
      build: duplicateOf(read.job.build, copyName(job.name, names)),
      write: newId(),
    });
    onRefused(error === undefined ? undefined : problemText(error));
    if (made) onDone({ kind: 'duplicated', id: made.id, name: made.build.name });
  };
  const put = async (change: { putAway?: boolean; deleted?: boolean }) => {
    const { error } = await place({ id: job.id, ...change });
    onRefused(error === undefined ? undefined : problemText(error));
    if (error === undefined && change.deleted) onDone({ kind: 'deleted', id: job.id, name: job.name });
  };
  return (
    <DropDown
      label={`What to do with ${job.name}`}
      named={`More about ${job.name}`}
      title="Rename, duplicate, tags, put away, delete"
      className="action border-transparent bg-transparent px-2"
      panel="p-1"
      button={<Ellipsis size={18} />}
    >
      {(close) => {
        const press = (act: () => void) => () => {
          close();
          act();
        };
        return (
          <>
            <Act onPress={press(() => onOpen('name'))}>Rename</Act>
            <Act onPress={press(() => onOpen('tags'))}>Tags</Act>
            <Act onPress={press(() => void duplicate())}>Duplicate</Act>
            <Act onPress={press(() => void put({ putAway: !job.putAway }))}>
              {job.putAway ? 'Take out again' : 'Put away'}
            </Act>
            <Act onPress={press(() => void put({ deleted: true }))}>
              <span className="text-red">Delete</span>
            </Act>
          </>
        );
      }}
    </DropDown>
  );
}

const Act = ({ onPress, children }: { onPress: () => void; children: ReactNode }) => (
  <button
    type="button"
    className="hover:bg-chalk-wash flex min-h-9 w-full items-center rounded px-3 text-left text-[15px]"
    onClick={onPress}
  >
    {children}
  </button>
);

interface FormProps {
  job: JobSummary;
  onClose: () => void;
  onRefused: (reason: string | undefined) => void;
}

/** A small form in the place of the list: Enter keeps it, Escape leaves it as it was. */
function PlaceForm({
  label,
  onClose,
  onKeep,
  children,
}: {
  label: string;
  onClose: () => void;
  onKeep: (form: FormData) => void;
  children: ReactNode;
}) {
  return (
    <form
      aria-label={label}
      className="flex flex-wrap items-end gap-2 px-2.5 pb-2.5"
      onKeyDown={(event) => event.key === 'Escape' && onClose()}
      onSubmit={(event) => {
        event.preventDefault();
        onKeep(new FormData(event.currentTarget));
      }}
    >
      {children}
      <button type="submit" className="action action-main">
        Keep
      </button>
      <button type="button" className="action" onClick={onClose}>
        Leave as it was
      </button>
    </form>
  );
}

const textIn = (form: FormData, name: string): string => String(form.get(name) ?? '').trim();

function NameForm({ job, onClose, onRefused }: FormProps) {
  return (
    <PlaceForm
      label={`Rename ${job.name}`}
      onClose={onClose}
      onKeep={async (form) => {
        const name = textIn(form, 'name');
        if (name === '') return onRefused('A job needs a name.');
        const error = await renameJob(job.id, { name, use: textIn(form, 'use') });
        onRefused(error === undefined ? undefined : problemText(error));
        if (error === undefined) onClose();
      }}
    >
      <label className="flex flex-col">
        <span className="label pb-0.5">Name</span>
        <input
          autoFocus
          name="name"
          className="field w-64 font-sans!"
          maxLength={120}
          defaultValue={job.name}
        />
      </label>
      <label className="flex flex-col">
        <span className="label pb-0.5">What it is for</span>
        <input name="use" className="field w-72 font-sans!" maxLength={400} defaultValue={job.use} />
      </label>
    </PlaceForm>
  );
}

function TagForm({ job, onClose, onRefused }: FormProps) {
  const [place] = usePlaceJobMutation();
  return (
    <PlaceForm
      label={`Tags of ${job.name}`}
      onClose={onClose}
      onKeep={async (form) => {
        const tags = readTags(textIn(form, 'tags'), { most: MOST_TAGS, longest: MOST_TAG });
        const { error } = await place({ id: job.id, tags });
        onRefused(error === undefined ? undefined : problemText(error));
        if (error === undefined) onClose();
      }}
    >
      <label className="flex flex-col">
        <span className="label pb-0.5">
          Tags, with commas between them, at most {counted(MOST_TAGS, 'tag')}
        </span>
        <input
          autoFocus
          name="tags"
          className="field w-80 max-w-full font-sans!"
          placeholder="kitchen, for sale"
          defaultValue={job.tags.join(', ')}
        />
      </label>
    </PlaceForm>
  );
}

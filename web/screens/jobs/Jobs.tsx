import { Plus, Trash2 } from 'lucide-react';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link, useLocation, useSearchParams } from 'react-router';
import type { JobSummary } from '../../../contract/api';
import { JOB_STATES, type JobState } from '../../../core/document';
import {
  JOB_ORDERS,
  jobCounts,
  type JobOrder,
  type JobQuery,
  listedJobs,
  NO_QUERY,
} from '../../../core/view/joblist';
import { counted } from '../../../core/units';
import { speciesName } from '../../../core/wood/common';
import { problemText, useJobsQuery, usePlaceJobMutation } from '../../app/api';
import { useDisplay } from '../../app/display';
import { Choice } from '../../parts/Choice';
import { lazily } from '../../parts/lazily';
import { Bar, Columns, Screen } from '../../parts/layout';
import { Toggle } from '../../parts/Toggle';
import { useNow } from '../../parts/use-now';
import { ImportJob } from './ImportJob';
import { type Deed, JobLine } from './JobLine';

const DeletedJobs = lazily(() => import('./DeletedJobs'), 'DeletedJobs');

type Look = 'pictures' | 'list';
/** More jobs than this are shown as lines first: nobody looks through so many pictures. */
const MANY = 40;

/** Said with an address that this screen wrote itself. */
const TYPED_HERE = 'typed here';
const NO_JOBS: JobSummary[] = [];
const STATES = Object.keys(JOB_STATES) as JobState[];
const ORDERS = (Object.keys(JOB_ORDERS) as JobOrder[]).map((value) => ({
  value,
  label: JOB_ORDERS[value].name,
}));

/** What is looked for stands in the address: a way back, and a page read again, find it as it was. */
function useQuery() {
  const [params, setParams] = useSearchParams();
  const query: JobQuery = {
    words: params.get('find') ?? '',
    states: params.getAll('state').filter((state): state is JobState => state in JOB_STATES),
    tags: params.getAll('tag'),
    order: ORDERS.find(({ value }) => value === params.get('order'))?.value ?? 'changed',
  };
  const change = (part: Partial<JobQuery & { look: Look }>) => {
    const next = { ...query, look: params.get('as'), ...part };
    const written = new URLSearchParams();
    if (next.words) written.set('find', next.words);
    for (const state of next.states) written.append('state', state);
    for (const tag of next.tags) written.append('tag', tag);
    if (next.order !== NO_QUERY.order) written.set('order', next.order);
    if (next.look) written.set('as', next.look);
    setParams(written, { replace: true, state: TYPED_HERE });
  };
  const as = params.get('as');
  return { query, change, look: (as === 'pictures' || as === 'list' ? as : undefined) as Look | undefined };
}

/** All jobs of the shop, each with its piece drawn to one scale or as a line; searched, sorted and put away. */
export function Jobs() {
  const { data: jobs, error } = useJobsQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: 5000,
    skipPollingIfUnfocused: true,
  });
  const display = useDisplay();
  const { query, change, look: chosen } = useQuery();
  const [deed, setDeed] = useState<Deed>();
  const [deleted, setDeleted] = useState(false);
  const [place] = usePlaceJobMutation();
  const now = useNow();
  const all = jobs ?? NO_JOBS;
  // A letter stands at once; the lines follow when they are ready, and a letter typed meanwhile comes first.
  const [words, setWords] = useState(query.words);
  const { key, state } = useLocation();
  useEffect(() => {
    // Come here by a link: what is looked for stands in the address. What was typed here stands in the field already.
    if (state !== TYPED_HERE) setWords(query.words);
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [key]);
  const asked = useDeferredValue(words);
  const shown = listedJobs(all, { ...query, words: asked }, { now, woodName: speciesName });
  const counts = useMemo(() => jobCounts(all, now), [all, now]);
  const names = useMemo(() => all.map(({ name }) => name), [all]);
  const look: Look = chosen ?? (all.length > MANY ? 'list' : 'pictures');
  const isAll = query.words === '' && query.states.length === 0 && query.tags.length === 0;
  const lines = shown.map((job) => (
    <JobLine key={job.id} job={job} look={look} now={now} names={names} onDone={setDeed} />
  ));
  return (
    <Screen>
      <Bar className="pb-3">
        <h1 className="text-[20px] font-semibold">Jobs</h1>
        <span className="text-graphite text-[14px]" role="status">
          {jobs &&
            (shown.length === all.length
              ? counted(all.length, 'job')
              : `${shown.length} of ${counted(all.length, 'job')}`)}
          {look === 'pictures' && ', drawn to one scale'}
        </span>
        <span className="ml-auto flex flex-wrap gap-2">
          <button type="button" className="action" onClick={() => setDeleted(true)}>
            <Trash2 size={15} aria-hidden /> Deleted
          </button>
          <ImportJob />
          <Link to="/jobs/new" className="action action-main">
            <Plus size={16} aria-hidden /> New job
          </Link>
        </span>
      </Bar>
      {error !== undefined && (
        <p role="alert" className="text-red">
          {problemText(error)}
        </p>
      )}
      {deed && (
        <p role="status" className="sheet mb-3 flex flex-wrap items-center gap-3 px-3 py-2 text-[15px]">
          {deed.kind === 'deleted' ? (
            <>
              “{deed.name}” is deleted. It can be brought back for 30 days.
              <button
                type="button"
                className="action"
                onClick={() => {
                  void place({ id: deed.id, deleted: false });
                  setDeed(undefined);
                }}
              >
                Undo
              </button>
            </>
          ) : (
            <>
              “{deed.name}” is made.
              <Link to={`/jobs/${deed.id}`} className="action">
                Open it
              </Link>
            </>
          )}
        </p>
      )}
      {jobs?.length === 0 && (
        <div className="sheet flex flex-col items-start gap-3 p-6">
          <p>
            No jobs yet. A new job begins with what you want, say a panel{' '}
            <span className="rule">{display.system === 'mm' ? '1000 × 400 × 25' : '40 × 16 × 1'}</span> in
            ash, and Junta plans the strips.
          </p>
          <Link to="/jobs/new" className="action action-main">
            Plan a panel
          </Link>
        </div>
      )}
      {all.length > 0 && (
        <Bar className="border-line border-t py-2.5">
          <input
            type="search"
            aria-label="Find a job"
            placeholder="Find: name, use, tag, wood"
            className="field w-64 font-sans! max-desk:w-full"
            value={words}
            onChange={(event) => {
              setWords(event.target.value);
              change({ words: event.target.value });
            }}
          />
          <span className="flex flex-wrap gap-1.5" role="group" aria-label="Only these states">
            {STATES.map((state) => (
              <Only
                key={state}
                name={JOB_STATES[state].name}
                title={JOB_STATES[state].says}
                count={counts.states[state]}
                on={query.states.includes(state)}
                onPress={() => change({ states: flipped(query.states, state) })}
              />
            ))}
          </span>
          {counts.tags.length > 0 && (
            <span className="flex flex-wrap gap-1.5" role="group" aria-label="Only these tags">
              {counts.tags.map(([tag, count]) => (
                <Only
                  key={tag}
                  name={tag}
                  count={count}
                  on={query.tags.includes(tag)}
                  onPress={() => change({ tags: flipped(query.tags, tag) })}
                />
              ))}
            </span>
          )}
          <span className="ml-auto flex flex-wrap items-end gap-2">
            <Choice
              label="Order"
              hideLabel
              className="w-40"
              value={query.order}
              options={ORDERS}
              onChange={(order) => change({ order: order as JobOrder })}
            />
            <Toggle<Look>
              label="Shown as"
              hideLabel
              value={look}
              options={[
                { value: 'pictures', label: 'Pictures' },
                { value: 'list', label: 'Lines' },
              ]}
              onChange={(as) => change({ look: as })}
            />
          </span>
        </Bar>
      )}
      {all.length > 0 && shown.length === 0 && (
        <p className="sheet flex flex-wrap items-center gap-3 p-4">
          {isAll ? 'Every job is put away.' : 'No job is like this.'}
          <button
            type="button"
            className="action"
            onClick={() => {
              if (!isAll) setWords('');
              change(isAll ? { states: ['away'] } : { words: '', states: [], tags: [] });
            }}
          >
            {isAll ? 'Show those put away' : 'Show all jobs'}
          </button>
        </p>
      )}
      {look === 'pictures' ? (
        <Columns list least={28} most={2} gap={1.5} className="gap-y-0">
          {lines}
        </Columns>
      ) : (
        <ul className="border-line border-b">{lines}</ul>
      )}
      {deleted && <DeletedJobs onClose={() => setDeleted(false)} />}
    </Screen>
  );
}

const flipped = <T,>(list: readonly T[], one: T): T[] =>
  list.includes(one) ? list.filter((each) => each !== one) : [...list, one];

/** Narrows the list to one state or tag. */
function Only({
  name,
  title,
  count,
  on,
  onPress,
}: {
  name: string;
  title?: string;
  count: number;
  on: boolean;
  onPress: () => void;
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      title={title}
      onClick={onPress}
      className={`flex min-h-7 items-center gap-1.5 rounded border px-2 text-[14px] ${on ? 'border-chalk bg-chalk-wash text-chalk font-medium' : 'border-edge bg-white'}`}
    >
      {name} <span className="rule text-[13px]">{count}</span>
    </button>
  );
}

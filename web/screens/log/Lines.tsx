import { Download } from 'lucide-react';
import { useDeferredValue, useState } from 'react';
import { Link, useSearchParams } from 'react-router';
import { LOG_FILTERS, LOG_PAGE, type LogFilter, type LoggedLine } from '../../../contract/log';
import { LINE_KINDS, LINE_KIND_NAMES, SEASONS, suspectOf } from '../../../core/log';
import { DIMENSIONS } from '../../../core/document';
import { STEP_ROOMS } from '../../../core/steps';
import { counted, type Display } from '../../../core/units';
import { findSpecies } from '../../../core/wood';
import { problemText, useLogQuery } from '../../app/api';
import { useDisplay } from '../../app/display';
import { shopHeaders } from '../../app/shop-choice';
import { Choice } from '../../parts/Choice';
import { type Column, DataTable } from '../../parts/DataTable';
import { Bar } from '../../parts/layout';
import { saveBlob } from '../../parts/save-file';
import { Toggle } from '../../parts/Toggle';
import { Words } from '../../parts/Words';
import { Problem } from './Problem';
import { type ChartBy, LogChart } from './LogChart';

const ALL = '';
const ANY = { value: ALL, label: 'All' };
const woodName = (id: string): string => findSpecies(id)?.common ?? id;
const stepName = (id: string): string => STEP_ROOMS.find(({ kind }) => kind === id)?.name ?? id;

const BY: readonly { value: ChartBy; label: string }[] = [
  { value: 'tool', label: 'Machine' },
  { value: 'stepKind', label: 'Step' },
  { value: 'wood', label: 'Wood' },
  { value: 'season', label: 'Season' },
];

const dayOf = (at: string): string =>
  new Date(at).toLocaleString('sv', { dateStyle: 'short', timeStyle: 'short' });

const sized = ({ kind }: LoggedLine): boolean => kind === 'size' || kind === 'check';

function numberOf(line: LoggedLine, value: number | undefined, display: Display) {
  if (value === undefined) return '';
  if (line.kind === 'minutes') return `${Math.round(value)} min`;
  return <Words phrase={[{ fine: value }]} display={display} />;
}

/** That a size can hardly be true, and what was most likely meant: to be put right at its step. */
function Suspicion({ line, display }: { line: LoggedLine; display: Display }) {
  const { kind, predicted, measured, likely } = line;
  const found =
    kind === 'size' && predicted !== undefined && measured !== undefined && likely !== undefined
      ? suspectOf({ predicted, measured, likely })
      : undefined;
  if (!found) return null;
  return (
    <span className="text-red block font-sans text-[13px] whitespace-normal">
      hardly true
      {found.meantMm !== undefined && (
        <>
          : <Words phrase={[{ fine: found.meantMm }]} display={display} />, {found.slip}?
        </>
      )}
    </span>
  );
}

const columnsIn = (display: Display): Column<LoggedLine>[] => [
  { head: 'Step', cell: ({ jobName, name }) => `${jobName}: ${name}` },
  { head: 'What', words: true, cell: ({ kind, dimension }) => dimension ?? LINE_KINDS[kind].name },
  { head: 'Predicted', right: true, cell: (line) => numberOf(line, line.predicted, display) },
  { head: 'Measured', right: true, cell: (line) => numberOf(line, line.measured, display) },
  {
    head: 'Off by',
    right: true,
    cell: (line) =>
      line.predicted === undefined || line.measured === undefined ? (
        ''
      ) : (
        <>
          {numberOf(line, line.measured - line.predicted, display)}
          <Suspicion line={line} display={display} />
        </>
      ),
  },
  {
    head: 'Band',
    right: true,
    cell: (line) =>
      line.likely === undefined || !sized(line) ? '' : <>± {numberOf(line, line.likely, display)}</>,
  },
  { head: 'With', words: true, cell: ({ toolName }) => toolName ?? '' },
  { head: 'Wood', words: true, cell: ({ wood }) => (wood ? woodName(wood) : '') },
  { head: 'When', cell: ({ at }) => dayOf(at) },
  { head: 'Who', words: true, cell: ({ who, gauge }) => [who, gauge].filter(Boolean).join(', ') },
  { head: 'Said', words: true, cell: ({ words }) => words ?? '' },
  {
    head: 'Open',
    words: true,
    cell: ({ job, step, jobName, name }) => (
      <Link
        className="press text-chalk underline"
        aria-label={`Open ${jobName}: ${name}`}
        to={`/jobs/${job}${step ? `?step=${encodeURIComponent(step)}` : ''}`}
      >
        Open
      </Link>
    ),
  },
];

/** What the log is narrowed by stands in the address: a way back finds it as it was. */
function useFilter() {
  const [params, setParams] = useSearchParams();
  const filter: LogFilter = Object.fromEntries(
    LOG_FILTERS.flatMap((name) => {
      const value = params.get(name);
      return value ? [[name, value] as const] : [];
    }),
  );
  const change = (part: { [Name in keyof LogFilter]?: string }) => {
    const next = new URLSearchParams({ view: 'readings' });
    for (const [name, value] of Object.entries({ ...filter, skip: ALL, ...part }))
      if (value) next.set(name, value);
    setParams(next, { replace: true });
  };
  return { filter, change };
}

/** Saves all that fits what was asked as a table. */
async function saveTable(filter: LogFilter): Promise<void> {
  const asked = new URLSearchParams(Object.entries(filter).filter(([name]) => name !== 'skip'));
  const answer = await fetch(`/api/log/table?${asked}`, { headers: shopHeaders() });
  if (!answer.ok) throw new Error('The server did not give the table.');
  saveBlob('log', 'csv', await answer.blob());
}

/** The readings themselves: narrowed, as a chart and as a table, and taken along as a file. */
export function Lines() {
  const display = useDisplay();
  const { filter, change } = useFilter();
  const [words, setWords] = useState(filter.text ?? '');
  const [by, setBy] = useState<ChartBy>('tool');
  const [problem, setProblem] = useState<string>();
  const asked = useDeferredValue(filter);
  const { data, error, isFetching } = useLogQuery(asked, { refetchOnMountOrArgChange: true });
  const choices = data?.choices;
  const skip = Number(filter.skip ?? 0);
  const pick = (name: keyof LogFilter, label: string, options: { value: string; label: string }[]) => (
    <Choice
      label={label}
      value={filter[name] ?? ALL}
      options={[ANY, ...options]}
      onChange={(value) => change({ [name]: value })}
      className="w-44 max-desk:w-full"
    />
  );
  const nameOf = (of: ChartBy, id: string): string =>
    of === 'tool'
      ? (choices?.tools.find((tool) => tool.id === id)?.name ?? id)
      : of === 'wood'
        ? woodName(id)
        : of === 'stepKind'
          ? stepName(id)
          : id;
  return (
    <div className="flex flex-col gap-4">
      <section aria-label="Narrow the log" className="sheet flex flex-wrap items-end gap-3 p-4">
        {pick(
          'kind',
          'What',
          LINE_KIND_NAMES.map((value) => ({ value, label: LINE_KINDS[value].name })),
        )}
        {pick(
          'stepKind',
          'Step',
          (choices?.stepKinds ?? []).map((value) => ({ value, label: stepName(value) })),
        )}
        {pick(
          'tool',
          'Machine',
          (choices?.tools ?? []).map(({ id, name }) => ({ value: id, label: name })),
        )}
        {pick(
          'wood',
          'Wood',
          (choices?.woods ?? []).map((value) => ({ value, label: woodName(value) })),
        )}
        {pick(
          'season',
          'Season',
          SEASONS.map((value) => ({ value, label: value })),
        )}
        {pick(
          'dimension',
          'Dimension',
          DIMENSIONS.map((value) => ({ value, label: value })),
        )}
        {pick(
          'job',
          'Job',
          (choices?.jobs ?? []).map(({ id, name }) => ({ value: id, label: name })),
        )}
        <label className="flex flex-col gap-0.5">
          <span className="label">From</span>
          <input
            type="date"
            className="field"
            value={filter.from ?? ''}
            onChange={({ target }) => change({ from: target.value })}
          />
        </label>
        <label className="flex flex-col gap-0.5">
          <span className="label">To</span>
          <input
            type="date"
            className="field"
            value={filter.to ?? ''}
            onChange={({ target }) => change({ to: target.value })}
          />
        </label>
        <form
          role="search"
          onSubmit={(event) => {
            event.preventDefault();
            change({ text: words.trim() });
          }}
        >
          <label className="flex flex-col gap-0.5">
            <span className="label">Words, then Enter</span>
            <input
              className="field"
              type="search"
              value={words}
              maxLength={200}
              onChange={({ target }) => setWords(target.value)}
            />
          </label>
        </form>
      </section>
      <Problem why={problem ?? (error === undefined ? undefined : problemText(error))} />
      {data && data.unread.length > 0 && (
        <p role="alert" className="text-red">
          Could not be read, and is left as it was in the log: {data.unread.join(', ')}.
        </p>
      )}
      <Bar>
        <p role="status" className="text-[15px]" data-testid="log-total">
          {data
            ? `${counted(data.total, 'line')}, ${counted(data.sizes, 'size')} among them`
            : 'Reading the log …'}
          {data && data.sizes > 0 && `, ${Math.round((100 * data.within) / data.sizes)} % within their band`}
          {isFetching && data ? ' …' : ''}
        </p>
        <button
          type="button"
          className="action ml-auto"
          onClick={() => {
            setProblem(undefined);
            saveTable(filter).catch((why: unknown) =>
              setProblem(why instanceof Error ? why.message : String(why)),
            );
          }}
        >
          <Download size={16} aria-hidden /> Save as CSV
        </button>
      </Bar>
      {data && data.points.length > 0 && filter.kind !== 'minutes' && (
        <section aria-label="Predicted against measured" className="sheet flex flex-col gap-3 p-4">
          <Toggle label="Told apart by" value={by} options={BY} onChange={setBy} />
          <LogChart points={data.points} by={by} nameOf={nameOf} display={display} />
        </section>
      )}
      {data && data.lines.length > 0 && (
        <DataTable
          label="Lines of the log"
          columns={columnsIn(display)}
          rows={data.lines}
          keyOf={({ job, id }) => `${job} ${id}`}
        />
      )}
      {data && data.total === 0 && <p>Nothing in the log fits this. Choose “All” to see more.</p>}
      {data && (skip > 0 || data.total > skip + LOG_PAGE) && (
        <Bar>
          <button
            type="button"
            className="action"
            disabled={skip === 0}
            onClick={() => change({ skip: String(Math.max(0, skip - LOG_PAGE)) })}
          >
            Newer
          </button>
          <button
            type="button"
            className="action"
            disabled={data.total <= skip + LOG_PAGE}
            onClick={() => change({ skip: String(skip + LOG_PAGE) })}
          >
            Older
          </button>
          <span className="text-graphite text-[14px]">
            {skip + 1} to {Math.min(data.total, skip + LOG_PAGE)} of {data.total}
          </span>
        </Bar>
      )}
    </div>
  );
}

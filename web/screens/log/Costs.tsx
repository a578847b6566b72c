import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { type Against, COST_GROUPS, type CostGroup, groupSums, type MadeCost } from '../../../core/cost';
import { counted, moneyText } from '../../../core/units';
import { problemText, useLogCostsQuery } from '../../app/api';
import { type Column, DataTable } from '../../parts/DataTable';
import { Problem } from './Problem';

/** Pause before those are asked for that were not added up yet, ms. */
const AGAIN_MS = 300;

/** Real of planned, in per cent; nothing where nothing was planned. */
const share = ({ plannedMinor, realMinor }: Against): string =>
  plannedMinor > 0 ? `${Math.round((100 * realMinor) / plannedMinor)} %` : '';

const against = <Row extends Against>(currency: string): Column<Row>[] => [
  { head: 'Real', right: true, cell: ({ realMinor }) => moneyText(realMinor, currency) },
  { head: 'Planned', right: true, cell: ({ plannedMinor }) => moneyText(plannedMinor, currency) },
  { head: 'Real of planned', right: true, cell: share },
];

const jobColumns = (currency: string): Column<MadeCost>[] => [
  { head: 'Job', words: true, cell: ({ name }) => name },
  ...against<MadeCost>(currency),
  {
    head: 'A piece, real',
    right: true,
    cell: ({ realMinor, pieces }) => moneyText(Math.round(realMinor / pieces), currency),
  },
  { head: 'Pieces', right: true, cell: ({ pieces }) => pieces },
  {
    head: 'Without a price',
    right: true,
    cell: ({ unpriced }) => (unpriced > 0 ? unpriced : ''),
  },
  {
    head: 'Steps not timed',
    right: true,
    cell: ({ untimed }) => (untimed > 0 ? untimed : ''),
  },
  { head: 'Done', cell: ({ at }) => (at === undefined ? '' : new Date(at).toLocaleDateString('sv')) },
  {
    head: 'Open',
    words: true,
    cell: ({ job, name }) => (
      <Link
        className="press text-chalk underline"
        aria-label={`Open the cost of ${name}`}
        to={`/jobs/${job}/cost`}
      >
        Open
      </Link>
    ),
  },
];

const kindColumns = (currency: string): Column<{ group: CostGroup } & Against>[] => [
  { head: 'Kind', words: true, cell: ({ group }) => COST_GROUPS[group] },
  ...against<{ group: CostGroup } & Against>(currency),
];

/** What the pieces that were made cost, against what was planned: by kind of cost, and job by job. */
export function Costs() {
  const [pause, setPause] = useState(0);
  const { data, error } = useLogCostsQuery(undefined, {
    refetchOnMountOrArgChange: true,
    pollingInterval: pause,
  });
  const pending = data?.pending ?? 0;
  useEffect(() => setPause(pending > 0 ? AGAIN_MS : 0), [pending]);
  if (error) return <Problem why={problemText(error)} />;
  if (!data) return <p role="status">Adding up …</p>;
  const { currency, made, older, unread } = data;
  if (currency === undefined)
    return (
      <p>
        The kit has no currency yet. Say it in the{' '}
        <Link className="text-chalk underline" to="/kit">
          Kit
        </Link>
        , then what things cost with the cost of any job.
      </p>
    );
  if (made.length === 0)
    return <p>No job is made to its end yet. When all steps of one are done, its cost stands here.</p>;
  const sum = made.reduce(
    (all, { plannedMinor, realMinor }) => ({
      plannedMinor: all.plannedMinor + plannedMinor,
      realMinor: all.realMinor + realMinor,
    }),
    { plannedMinor: 0, realMinor: 0 },
  );
  const untimed = made.reduce((total, each) => total + each.untimed, 0);
  return (
    <div className="flex flex-col gap-5">
      <p data-testid="all-costs">
        <b className="font-semibold">{made.length === 1 ? 'One job' : `${made.length} jobs`}</b> made: planned{' '}
        {moneyText(sum.plannedMinor, currency)}, real {moneyText(sum.realMinor, currency)}
        {sum.plannedMinor > 0 && `, ${share(sum)}`}. Prices are those of today.
        {untimed > 0 &&
          ` At ${counted(untimed, 'step')} nobody timed the hands: they are in what was planned, and not in what is real.`}
      </p>
      <section aria-labelledby="by-kind" className="flex flex-col gap-2">
        <h2 id="by-kind" className="text-[17px] font-semibold">
          Where it goes
        </h2>
        <DataTable
          label="Cost by kind"
          columns={kindColumns(currency)}
          rows={groupSums(made)}
          keyOf={({ group }) => group}
        />
      </section>
      <section aria-labelledby="by-job" className="flex flex-col gap-2">
        <h2 id="by-job" className="text-[17px] font-semibold">
          Job by job
        </h2>
        <DataTable label="Cost by job" columns={jobColumns(currency)} rows={made} keyOf={({ job }) => job} />
      </section>
      {pending > 0 && <p role="status">{counted(pending, 'job')} more to add up …</p>}
      {older > 0 && <p className="text-graphite text-[13.5px]">{older} older jobs are not shown.</p>}
      {unread.length > 0 && (
        <p role="alert" className="text-red">
          Damaged, and not counted: {unread.join(', ')}.
        </p>
      )}
    </div>
  );
}

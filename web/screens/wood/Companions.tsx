import { skipToken } from '@reduxjs/toolkit/query';
import { Layers } from 'lucide-react';
import { useMemo } from 'react';
import { useSearchParams } from 'react-router';
import { counted } from '../../../core/units';
import { problemText, useJobQuery, useJobsQuery } from '../../app/api';
import { DropDown } from '../../parts/DropDown';
import { Tick } from '../../parts/Tick';
import type { Companion } from './use-breakdown';

/** At most this many jobs are broken down together with the open one. */
const MOST = 3;

const idsOf = (list: string | null, own: string): string[] =>
  (list ?? '')
    .split(',')
    .filter((id) => id && id !== own)
    .slice(0, MOST);

/** The jobs named in the address. Until all of them are read, nothing may be planned or printed as if there were fewer. */
export interface ReadCompanions {
  jobs: Companion[];
  waiting: boolean;
  /** Why one of them cannot be read. */
  trouble: string | undefined;
}

/** The jobs named in the address, read from the server, in their order. */
export function useCompanions(list: string | null, own: string): ReadCompanions {
  const ids = idsOf(list, own);
  const first = useJobQuery(ids[0] ?? skipToken, { refetchOnMountOrArgChange: true });
  const second = useJobQuery(ids[1] ?? skipToken, { refetchOnMountOrArgChange: true });
  const third = useJobQuery(ids[2] ?? skipToken, { refetchOnMountOrArgChange: true });
  const jobs = useMemo(
    () =>
      [first.currentData, second.currentData, third.currentData].flatMap((job) =>
        job ? [{ id: job.id, version: job.version, build: job.build }] : [],
      ),
    [first.currentData, second.currentData, third.currentData],
  );
  const unread = [first, second, third].slice(0, ids.length).filter(({ currentData }) => !currentData);
  const failed = unread.find(({ isError }) => isError);
  return {
    jobs,
    waiting: unread.length > 0,
    trouble: failed && `A job that shares the boards cannot be read. ${problemText(failed.error)}`,
  };
}

/** Chooses other jobs whose strips come out of the same boards. */
export function Companions({ id }: { id: string }) {
  const { data: jobs } = useJobsQuery();
  const [search, setSearch] = useSearchParams();
  const chosen = idsOf(search.get('with'), id);
  const toggle = (other: string, on: boolean) => {
    const next = on ? [...chosen, other] : chosen.filter((c) => c !== other);
    setSearch(next.length ? { with: next.join(',') } : {}, { replace: true });
  };
  const gone = jobs ? chosen.filter((other) => !jobs.some((job) => job.id === other)) : [];
  return (
    <DropDown
      label="Jobs that share the boards"
      panel="w-80 gap-1 p-4"
      button={
        <>
          <Layers size={15} aria-hidden />{' '}
          {chosen.length ? `with ${counted(chosen.length, 'other job')}` : 'With other jobs'}
        </>
      }
    >
      {() => (
        <>
          <p className="text-graphite pb-1 text-[13px]">
            Up to {MOST} jobs share the boards; each gets its own strips, marked A, B, C.
          </p>
          {jobs
            ?.filter((job) => job.id !== id)
            .map((job) => (
              <Tick
                key={job.id}
                label={job.name}
                checked={chosen.includes(job.id)}
                disabled={!chosen.includes(job.id) && chosen.length >= MOST}
                onChange={(on) => toggle(job.id, on)}
              />
            ))}
          {gone.map((other) => (
            <Tick key={other} label="A job that is gone" checked onChange={() => toggle(other, false)} />
          ))}
        </>
      )}
    </DropDown>
  );
}

import type { JobReply } from '../../../contract/api';
import { api } from '../../app/api';
import { keepChange } from '../../app/outbox';
import { store } from '../../app/store';

/** A job as the server has it now, or why it cannot be read. */
export async function readBuild(id: string): Promise<{ job: JobReply } | { error: unknown }> {
  const { data, error } = await store.dispatch(
    api.endpoints.job.initiate(id, { forceRefetch: true, subscribe: false }),
  );
  return data ? { job: data } : { error };
}

/** Gives a job another name and use, through the door of every edit; gives the error where it cannot be read. */
export async function renameJob(id: string, to: { name: string; use: string }): Promise<unknown> {
  const read = await readBuild(id);
  if ('error' in read) return read.error;
  const { version, build } = read.job;
  keepChange('job', id, { name: to.name, version, content: { ...build, ...to } });
  store.dispatch(
    api.util.updateQueryData('jobs', undefined, (jobs) => {
      const job = jobs.find((each) => each.id === id);
      if (job) Object.assign(job, to);
    }),
  );
  return undefined;
}

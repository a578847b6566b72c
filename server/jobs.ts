import { randomUUID } from 'node:crypto';
import type { DataSource, EntityManager } from 'typeorm';
import type { JobReply, JobSummary, RevisionSummary } from '../contract/api';
import type { BuildDocument } from '../core/build';
import { JobEntity, RevisionEntity, type JobRow } from './entities';
import { currentShop } from './kit';
import { problem } from './problems';

const summary = (job: JobRow): JobSummary => ({
  id: job.id,
  name: job.name,
  use: job.purpose,
  version: job.version,
  changed: job.changedAt.toISOString(),
});

async function findJob(manager: EntityManager, id: string): Promise<JobRow> {
  const { id: shopId } = await currentShop(manager);
  const job = /^[0-9a-f-]{36}$/i.test(id) ? await manager.findOneBy(JobEntity, { id, shopId }) : null;
  if (!job) throw problem(404, 'No such job', `There is no job “${id}” in this shop.`);
  return job;
}

/** The jobs of the shop, the last changed first. */
export async function listJobs(source: DataSource): Promise<JobSummary[]> {
  const { id: shopId } = await currentShop(source.manager);
  const jobs = await source.manager.find(JobEntity, {
    where: { shopId },
    order: { changedAt: 'DESC' },
    take: 1000,
  });
  return jobs.map(summary);
}

/** A job with its newest build. */
export async function readJob(manager: EntityManager, id: string): Promise<JobReply> {
  const job = await findJob(manager, id);
  const revision = await manager.findOneBy(RevisionEntity, { jobId: id, version: job.version, aside: false });
  if (!revision)
    throw problem(500, 'A job without a build', `Version ${job.version} of “${job.name}” is missing.`);
  return { ...summary(job), build: revision.build };
}

/** The newest builds of the shop's jobs, the oldest job first: what the calendar is made of. */
export async function listBuilds(source: DataSource): Promise<JobReply[]> {
  const { id: shopId } = await currentShop(source.manager);
  const jobs = await source.manager.find(JobEntity, {
    where: { shopId },
    order: { createdAt: 'ASC', changedAt: 'ASC' },
    take: 100,
  });
  const revisions = await source.manager.find(RevisionEntity, {
    where: jobs.map(({ id, version }) => ({ jobId: id, version, aside: false })),
  });
  const builds = new Map(revisions.map((revision) => [revision.jobId, revision.build]));
  return jobs.flatMap((job) => {
    const build = builds.get(job.id);
    return build ? [{ ...summary(job), build }] : [];
  });
}

/** Only the version, for tabs that watch whether a job moved on. */
export async function readJobVersion(source: DataSource, id: string): Promise<{ version: number }> {
  return { version: (await findJob(source.manager, id)).version };
}

/** Keeps a build as a revision; gives its id. */
async function keepRevision(
  manager: EntityManager,
  shopId: string,
  jobId: string,
  version: number,
  build: BuildDocument,
  aside: boolean,
): Promise<string> {
  const id = randomUUID();
  // TypeORM's partial type walks into the document's open settings; the column takes the document as a whole.
  await manager.insert(RevisionEntity, { id, shopId, jobId, version, aside, build } as never);
  return id;
}

/** Adds a job to a shop; gives its id. `changedAt` orders demo jobs. */
export async function insertJob(
  manager: EntityManager,
  shopId: string,
  build: BuildDocument,
  changedAt = new Date(),
): Promise<string> {
  const id = randomUUID();
  await manager.insert(JobEntity, {
    id,
    shopId,
    name: build.name,
    purpose: build.use,
    version: 1,
    changedAt,
  });
  await keepRevision(manager, shopId, id, 1, build, false);
  return id;
}

/** Makes a new job. */
export const createJob = (source: DataSource, build: BuildDocument): Promise<JobReply> =>
  source.transaction(async (manager) =>
    readJob(manager, await insertJob(manager, (await currentShop(manager)).id, build)),
  );

/**
 * Stores a build made from `version`. When the job moved on meanwhile, nothing is overwritten: the build is kept as a
 * revision put aside and the answer is 409 with the version that stands.
 */
export async function saveJob(
  source: DataSource,
  id: string,
  version: number,
  build: BuildDocument,
): Promise<JobSummary> {
  // Read committed: after a lost race the version that won must be seen, not the snapshot from before it.
  const stored = await source.transaction('READ COMMITTED', async (manager) => {
    const job = await findJob(manager, id);
    const changed = await manager.update(
      JobEntity,
      { id, version },
      { name: build.name, purpose: build.use, version: version + 1, changedAt: new Date() },
    );
    if (changed.affected === 1) {
      await keepRevision(manager, job.shopId, id, version + 1, build, false);
      return summary(await findJob(manager, id));
    }
    const current = await readJob(manager, id);
    if (JSON.stringify(current.build) === JSON.stringify(build)) return summary(await findJob(manager, id));
    return { current, aside: await keepRevision(manager, job.shopId, id, version, build, true) };
  });
  if ('current' in stored)
    throw problem(
      409,
      'Changed in two places',
      `This job is at version ${stored.current.version}; your change was made from version ${version}. Both are kept.`,
      stored,
    );
  return stored;
}

/** All kept builds of a job, newest first. */
export async function listRevisions(source: DataSource, id: string): Promise<RevisionSummary[]> {
  await findJob(source.manager, id);
  const rows = await source.manager.find(RevisionEntity, {
    where: { jobId: id },
    order: { createdAt: 'DESC', version: 'DESC' },
    take: 200,
  });
  return rows.map((row) => ({
    id: row.id,
    version: row.version,
    made: row.createdAt.toISOString(),
    aside: row.aside,
    name: row.build.name,
  }));
}

/** One kept build. */
export async function readRevision(source: DataSource, jobId: string, id: string): Promise<BuildDocument> {
  await findJob(source.manager, jobId);
  const row = /^[0-9a-f-]{36}$/i.test(id)
    ? await source.manager.findOneBy(RevisionEntity, { id, jobId })
    : null;
  if (!row) throw problem(404, 'No such version', `There is no kept version “${id}” of this job.`);
  return row.build;
}

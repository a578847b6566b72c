import { randomUUID } from 'node:crypto';
import { In, IsNull, Not, type DataSource, type EntityManager } from 'typeorm';
import type { BoardEvent, NewBoard, RackBoard } from '../contract/board';
import type { BoardStock, BuildDocument } from '../core/build';
import { offcutBoards } from '../core/stock';
import { BoardEntity, JobEntity, type BoardRow } from './entities';
import { readJob } from './jobs';
import { currentShop } from './kit';
import { problem } from './problems';

const event = (what: string): BoardEvent => ({ when: new Date().toISOString(), what });

/** The rack: every board on it, in the order in which they came. */
export async function listBoards(manager: EntityManager): Promise<RackBoard[]> {
  const { id: shopId } = await currentShop(manager);
  const [rows, jobs] = await Promise.all([
    manager.find(BoardEntity, { where: { shopId, live: 1 }, order: { createdAt: 'ASC', number: 'ASC' } }),
    manager.find(JobEntity, { where: { shopId }, select: { id: true, name: true } }),
  ]);
  const names = new Map(jobs.map(({ id, name }) => [id, name]));
  return rows.map((row) => rackBoard(row, names));
}

const rackBoard = (row: BoardRow, names: ReadonlyMap<string, string>): RackBoard => ({
  ...row.details,
  id: row.id,
  version: row.version,
  history: row.history,
  ...(row.jobId ? { reserved: { job: row.jobId, name: names.get(row.jobId) ?? '' } } : {}),
});

const columns = (board: NewBoard) => ({
  number: board.label,
  species: board.species,
  lengthMm: board.length.mm,
  widthMm: board.width.mm,
  thicknessMm: board.thickness.mm,
  details: board,
});

/** The next number free on the rack that begins like a given one: `7` gives `7a`. */
function freeNumber(label: string, taken: ReadonlySet<string>): string {
  for (const letter of 'abcdefghijklmnopqrstuvwxyz') if (!taken.has(label + letter)) return label + letter;
  for (let n = 2; ; n++) if (!taken.has(`${label}-${n}`)) return `${label}-${n}`;
}

async function numbersOnRack(manager: EntityManager, shopId: string): Promise<Set<string>> {
  const rows = await manager.find(BoardEntity, { where: { shopId, live: 1 }, select: { number: true } });
  return new Set(rows.map(({ number }) => number));
}

const isDuplicate = (error: unknown) => (error as { code?: string }).code === 'ER_DUP_ENTRY';

/** Puts boards on the rack, all or none. A number that is there already is refused with the next free one. */
export async function addBoards(
  manager: EntityManager,
  boards: readonly NewBoard[],
  what = 'came onto the rack',
): Promise<string[]> {
  const { id: shopId } = await currentShop(manager);
  const taken = await numbersOnRack(manager, shopId);
  for (const { label } of boards) {
    if (taken.has(label))
      throw problem(
        409,
        'Number taken',
        `Number ${label} is on another board already. ${freeNumber(label, taken)} is free.`,
      );
    taken.add(label);
  }
  const start = Date.now();
  const rows = boards.map((board, i) => ({
    id: randomUUID(),
    shopId,
    live: 1,
    version: 1,
    jobId: null,
    history: [event(what)],
    // The rack lists boards as they were entered, also those of one table.
    createdAt: new Date(start + i),
    ...columns(board),
  }));
  try {
    for (let from = 0; from < rows.length; from += 500)
      await manager.insert(BoardEntity, rows.slice(from, from + 500) as never);
  } catch (error) {
    if (isDuplicate(error))
      throw problem(
        409,
        'Number taken',
        'One of these numbers was given to another board in this moment. Try again.',
      );
    throw error;
  }
  return rows.map(({ id }) => id);
}

async function findBoards(manager: EntityManager, ids: readonly string[]): Promise<BoardRow[]> {
  const { id: shopId } = await currentShop(manager);
  const uuids = ids.filter((id) => /^[0-9a-f-]{36}$/i.test(id));
  return uuids.length ? manager.find(BoardEntity, { where: { shopId, live: 1, id: In(uuids) } }) : [];
}

/** Changes a board made from `version`; answers 409 when it was changed elsewhere meanwhile. */
export const saveBoard = (
  source: DataSource,
  id: string,
  version: number,
  board: NewBoard,
): Promise<RackBoard> =>
  source.transaction(async (manager) => {
    const [row] = await findBoards(manager, [id]);
    if (!row) throw problem(404, 'No such board', 'This board is not on the rack any more.');
    try {
      const changed = await manager.update(BoardEntity, { id, version }, {
        ...columns(board),
        version: version + 1,
      } as never);
      if (changed.affected !== 1)
        throw problem(
          409,
          'Changed elsewhere',
          `Board ${row.number} was changed in another tab or on another device. It is shown as it is now.`,
        );
    } catch (error) {
      if (isDuplicate(error)) {
        const free = freeNumber(board.label, await numbersOnRack(source.manager, row.shopId));
        throw problem(
          409,
          'Number taken',
          `Number ${board.label} is on another board already. ${free} is free.`,
        );
      }
      throw error;
    }
    const all = await listBoards(manager);
    return all.find((other) => other.id === id) as RackBoard;
  });

/** Takes boards off the rack. One that a job has reserved is refused with the job's name unless forced. */
export const removeBoards = (
  source: DataSource,
  ids: readonly string[],
  force: boolean,
): Promise<{ removed: number }> =>
  source.transaction(async (manager) => {
    const rows = await findBoards(manager, ids);
    const held = rows.filter(({ jobId }) => jobId);
    if (held.length > 0 && !force) {
      const jobs = await manager.find(JobEntity, { where: { id: In(held.map(({ jobId }) => jobId)) } });
      throw problem(
        409,
        'Reserved',
        `${held.length === 1 ? `Board ${held[0].number} is` : `${held.length} boards are`} reserved for “${jobs.map(({ name }) => name).join('”, “')}”. The job keeps its own copy, but its strips will have no real board.`,
      );
    }
    if (rows.length > 0) await manager.delete(BoardEntity, { id: In(rows.map(({ id }) => id)) });
    return { removed: rows.length };
  });

/** Reserves boards for a job instead of those it had. A board that another job has or that is gone is refused. */
export const reserveBoards = (
  source: DataSource,
  jobId: string,
  ids: readonly string[],
): Promise<RackBoard[]> =>
  source.transaction(async (manager) => {
    const job = await readJob(manager, jobId);
    const rows = await findBoards(manager, ids);
    const other = rows.find((row) => row.jobId !== null && row.jobId !== jobId);
    if (other)
      throw problem(
        409,
        'Reserved',
        `Board ${other.number} was reserved for another job meanwhile. Solve again.`,
      );
    if (rows.length < new Set(ids).size)
      throw problem(
        409,
        'Gone',
        `${new Set(ids).size - rows.length} of these boards are not on the rack any more. Solve again.`,
      );
    await manager.update(
      BoardEntity,
      { jobId, ...(ids.length ? { id: Not(In([...ids])) } : {}) },
      { jobId: null },
    );
    for (const row of rows.filter((r) => r.jobId === null))
      await manager.update(BoardEntity, { id: row.id, jobId: IsNull() }, {
        jobId,
        history: [...row.history, event(`reserved for “${job.name}”`)],
      } as never);
    return listBoards(manager);
  });

/**
 * The boards of a job are cut: they leave the rack, and their offcuts worth keeping come onto it as boards of their
 * own, with where they come from. Boards of the job that are not on the rack any more are passed over.
 */
export const cutBoards = (source: DataSource, jobId: string): Promise<{ used: number; offcuts: string[] }> =>
  source.transaction(async (manager) => {
    const job = await readJob(manager, jobId);
    const rows = await findBoards(
      manager,
      job.build.boards.map(({ id }) => id),
    );
    const taken = await numbersOnRack(manager, (await currentShop(manager)).id);
    const offcuts: NewBoard[] = [];
    for (const row of rows) {
      taken.delete(row.number);
      for (const offcut of offcutsOf(row, job.build)) {
        const label = freeNumber(row.number, taken);
        taken.add(label);
        offcuts.push({ ...offcut, label });
      }
    }
    for (const row of rows)
      await manager.update(BoardEntity, { id: row.id }, {
        live: null,
        jobId: null,
        version: row.version + 1,
        history: [...row.history, event(`cut up for “${job.name}”`)],
      } as never);
    if (offcuts.length > 0) await addBoards(manager, offcuts, `left over from “${job.name}”`);
    return { used: rows.length, offcuts: offcuts.map(({ label }) => label) };
  });

const offcutsOf = (row: BoardRow, build: BuildDocument): NewBoard[] =>
  offcutBoards({ ...row.details, id: row.id } as BoardStock, build).map(({ id: _, ...board }) => board);

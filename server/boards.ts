import { randomUUID } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import { type DataSource, type EntityManager, In, IsNull, Not } from 'typeorm';
import type { BrokenDown } from '../contract/api';
import { newBoardSchema, type BoardEvent, type NewBoard, type RackBoard } from '../contract/board';
import { checkWith } from '../contract/check';
import type { BoardStock, BuildDocument } from '../core/document';
import { freeNumber, numberClash, offcutBoards } from '../core/stock';
import type { Caller } from './caller';
import { transact } from './database';
import { BoardEntity, type BoardRow, JobEntity } from './entities';
import { isUuid } from './ids';
import { readJob } from './jobs';
import { storeOver } from './savejob';
import { problem } from './problems';
import { giveReceipt, receiptOf, writerOf } from './receipts';

const event = (what: string, { member }: Caller): BoardEvent => ({
  when: new Date().toISOString(),
  what,
  by: member,
});

/** Puts boards on the rack as one write; the same write repeated gives the ids it gave. */
export const bringBoards = (
  source: DataSource,
  caller: Caller,
  boards: readonly NewBoard[],
  write?: string,
): Promise<string[]> =>
  transact(source, async (manager) => {
    const before = await receiptOf(manager, caller, write);
    if (before) return before.answer as string[];
    const answer = await addBoards(manager, caller, boards);
    await giveReceipt(manager, caller, write, { subject: caller.shop, version: 0, answer });
    return answer;
  });

/** The rack: every board on it, in the order in which they came. */
export async function listBoards(manager: EntityManager, { shop }: Caller): Promise<RackBoard[]> {
  const [rows, jobs] = await Promise.all([
    manager.find(BoardEntity, {
      where: { shopId: shop, live: 1 },
      order: { createdAt: 'ASC', number: 'ASC' },
    }),
    manager.find(JobEntity, { where: { shopId: shop }, select: { id: true, name: true } }),
  ]);
  const names = new Map(jobs.map(({ id, name }) => [id, name]));
  return rows.map((row) => rackBoard(row, names));
}

const newBoard = newBoardSchema();
/** What a board is; of one whose details were damaged, what its row says beside them: wood and size. */
function detailsOf(row: BoardRow): { details: NewBoard; history: BoardEvent[] } {
  const history = Array.isArray(row.history) ? row.history : [];
  if (row.details !== null && checkWith(newBoard, row.details).ok) return { details: row.details, history };
  const what = 'its details were damaged in the database: wood and size are left';
  return {
    details: {
      label: row.number,
      species: row.species,
      length: { mm: row.lengthMm },
      width: { mm: row.widthMm },
      thickness: { mm: row.thicknessMm },
    },
    history: [...history, { when: row.createdAt.toISOString(), what }],
  };
}

const rackBoard = (
  row: BoardRow,
  names: ReadonlyMap<string, string>,
  { details, history } = detailsOf(row),
): RackBoard => ({
  ...details,
  id: row.id,
  version: row.version,
  history,
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

async function numbersOnRack(manager: EntityManager, shopId: string): Promise<Set<string>> {
  const rows = await manager.find(BoardEntity, { where: { shopId, live: 1 }, select: { number: true } });
  return new Set(rows.map(({ number }) => number));
}

const isDuplicate = (error: unknown) => (error as { code?: string }).code === 'ER_DUP_ENTRY';

/** Puts boards on the rack, all or none. A number that is there already is refused with the next free one. */
export async function addBoards(
  manager: EntityManager,
  caller: Caller,
  boards: readonly NewBoard[],
  what = 'came onto the rack',
): Promise<string[]> {
  const { shop } = caller;
  const clash = numberClash(boards, await numbersOnRack(manager, shop));
  if (clash)
    throw problem(
      409,
      'Number taken',
      `Number ${clash.label} is on another board already. ${clash.free} is free.`,
    );
  const start = Date.now();
  const rows = boards.map((board, i) => ({
    id: randomUUID(),
    shopId: shop,
    live: 1,
    version: 1,
    jobId: null,
    history: [event(what, caller)],
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

async function findBoards(
  manager: EntityManager,
  { shop }: Caller,
  ids: readonly string[],
): Promise<BoardRow[]> {
  const uuids = ids.filter(isUuid);
  return uuids.length
    ? manager.find(BoardEntity, { where: { shopId: shop, live: 1, id: In(uuids) }, order: { id: 'ASC' } })
    : [];
}

const shownBoard = async (
  manager: EntityManager,
  caller: Caller,
  id: string,
): Promise<RackBoard | undefined> => (await listBoards(manager, caller)).find((board) => board.id === id);

/**
 * Changes a board made from `version`; gives the board with the version that made. A write that was carried out before
 * is answered with the version it made, and so is one that says what stands already; otherwise 409 with the board.
 */
export async function saveBoard(
  source: DataSource,
  caller: Caller,
  change: { id: string; version: number; board: NewBoard; write?: string | undefined },
): Promise<RackBoard> {
  const { id, version, board, write } = change;
  try {
    const stored = await transact(source, (manager) => storeBoard(manager, caller, change));
    if (!('current' in stored)) return stored;
    throw problem(
      409,
      'Changed elsewhere',
      `Board ${stored.current.label} is at version ${stored.current.version}; your change was made from version ${version}. It is kept in this browser until you choose.`,
      stored,
    );
  } catch (error) {
    if (!isDuplicate(error)) throw error;
    if ((await receiptOf(source.manager, caller, write))?.subject === id)
      return saveBoard(source, caller, change);
    const free = freeNumber(board.label, await numbersOnRack(source.manager, caller.shop));
    throw problem(409, 'Number taken', `Number ${board.label} is on another board already. ${free} is free.`);
  }
}

async function storeBoard(
  manager: EntityManager,
  caller: Caller,
  { id, version, board, write }: { id: string; version: number; board: NewBoard; write?: string | undefined },
): Promise<RackBoard | { current: RackBoard; write?: string }> {
  const [row] = await findBoards(manager, caller, [id]);
  if (!row) throw problem(404, 'No such board', 'This board is not on the rack any more.');
  const before = await receiptOf(manager, caller, write);
  const changed = before
    ? { affected: 0 }
    : await manager.update(BoardEntity, { id, version, live: 1 }, {
        ...columns(board),
        version: version + 1,
      } as never);
  if (changed.affected === 1)
    await giveReceipt(manager, caller, write, { subject: id, version: version + 1 });
  const now = await shownBoard(manager, caller, id);
  if (!now) throw problem(404, 'No such board', 'This board is not on the rack any more.');
  if (changed.affected === 1) return now;
  if (before?.subject === id) return { ...now, version: before.version };
  const { id: _i, version: _v, history: _h, reserved: _r, ...content } = now;
  if (isDeepStrictEqual(content, board)) return now;
  const maker = await writerOf(manager, id, now.version);
  return { current: now, ...(maker ? { write: maker } : {}) };
}

/** Takes boards off the rack. One that a job has reserved is refused with the job's name unless forced. */
export const removeBoards = (
  source: DataSource,
  caller: Caller,
  { ids, force }: { ids: readonly string[]; force: boolean },
): Promise<{ removed: number }> =>
  transact(source, async (manager) => {
    const rows = await findBoards(manager, caller, ids);
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

/**
 * Reserves boards for a job, and stores the jobs that were broken down with it, all of it or nothing. The job has these
 * boards then; with `freed`, those that only its plan before took, it keeps what else it had reserved. A board that
 * another job has or that is gone is refused, and so is a job that moved on: of two that ask at once, the database lets
 * one have it.
 */
export const reserveBoards = (
  source: DataSource,
  caller: Caller,
  { job: jobId, boards, freed, companions = [] }: BrokenDown & { job: string },
): Promise<RackBoard[]> =>
  transact(source, async (manager) => {
    const job = await readJob(manager, caller, jobId);
    // In the order of their ids, so that two breakdowns do not wait for each other.
    for (const companion of companions.toSorted((a, b) => (a.id < b.id ? -1 : 1)))
      await storeOver(manager, caller, companion);
    const ids = new Set([...(freed ? await keptByHand(manager, job.id, freed) : []), ...boards.map(lower)]);
    const wanted = [...ids];
    // In the order of their ids, so that two jobs do not wait for each other.
    const rows = await findBoards(manager, caller, wanted);
    if (rows.length < wanted.length)
      throw problem(
        409,
        'Gone',
        `${wanted.length - rows.length} of these boards are not on the rack any more. Solve again.`,
      );
    for (const row of rows) {
      if (row.jobId === job.id) continue;
      const taken = await manager.update(BoardEntity, { id: row.id, live: 1, jobId: IsNull() }, {
        jobId: job.id,
        history: [...detailsOf(row).history, event(`reserved for “${job.name}”`, caller)],
      } as never);
      if (taken.affected !== 1)
        throw problem(
          409,
          'Reserved',
          `Board ${row.number} was reserved for another job or left the rack meanwhile. Solve again.`,
        );
    }
    await manager.update(
      BoardEntity,
      { jobId: job.id, ...(wanted.length ? { id: Not(In(wanted)) } : {}) },
      { jobId: null },
    );
    return listBoards(manager, caller);
  });

const lower = (id: string): string => id.toLowerCase();

/** Boards that a job has reserved besides those its plan before took. */
async function keptByHand(
  manager: EntityManager,
  jobId: string,
  freed: readonly string[],
): Promise<string[]> {
  const before = new Set(freed.map(lower));
  const rows = await manager.find(BoardEntity, { select: { id: true }, where: { jobId } });
  return rows.map(({ id }) => lower(id)).filter((id) => !before.has(id));
}

/** What cutting a job's boards came to. */
interface Cut {
  used: number;
  offcuts: string[];
}

/**
 * The boards of a job are cut: they leave the rack, and their offcuts worth keeping come onto it as boards of their
 * own, with where they come from. Boards of the job that are not on the rack any more are passed over. The same write
 * repeated gives what it came to the first time.
 */
export const cutBoards = (source: DataSource, caller: Caller, jobId: string, write?: string): Promise<Cut> =>
  transact(source, async (manager) => {
    const before = await receiptOf(manager, caller, write);
    if (before) return before.answer as Cut;
    const job = await readJob(manager, caller, jobId);
    const rows = await findBoards(
      manager,
      caller,
      job.build.boards.map(({ id }) => id),
    );
    const taken = await numbersOnRack(manager, caller.shop);
    const offcuts: NewBoard[] = [];
    for (const row of rows) {
      taken.delete(row.number);
      for (const offcut of offcutsOf(row, job.build)) {
        const label = freeNumber(row.number, taken);
        taken.add(label);
        offcuts.push({ ...offcut, label });
      }
    }
    for (const row of rows) {
      const cut = await manager.update(BoardEntity, { id: row.id, live: 1, version: row.version }, {
        live: null,
        jobId: null,
        version: row.version + 1,
        history: [...detailsOf(row).history, event(`cut up for “${job.name}”`, caller)],
      } as never);
      if (cut.affected !== 1)
        throw problem(
          409,
          'Changed elsewhere',
          `Board ${row.number} was changed or cut up meanwhile. Try again.`,
        );
    }
    if (offcuts.length > 0) await addBoards(manager, caller, offcuts, `left over from “${job.name}”`);
    const answer: Cut = { used: rows.length, offcuts: offcuts.map(({ label }) => label) };
    await giveReceipt(manager, caller, write, { subject: job.id, version: job.version, answer });
    return answer;
  });

const offcutsOf = (row: BoardRow, build: BuildDocument): NewBoard[] =>
  offcutBoards({ ...detailsOf(row).details, id: row.id } as BoardStock, build).map(
    ({ id: _, ...board }) => board,
  );

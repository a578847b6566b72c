import { createHash } from 'node:crypto';
import { isDeepStrictEqual } from 'node:util';
import type { DataSource, EntityManager } from 'typeorm';
import type { NotesReply } from '../contract/api';
import { megabytes, MOST_NOTES, type Note, type NoteContent } from '../core/notes';
import type { Caller } from './caller';
import { transact } from './database';
import { isUuid } from './ids';
import { findAnyJob, notDeleted } from './jobs';
import { KEPT_DAYS } from './joblists';
import { readPhoto } from './photos';
import { badFields, problem } from './problems';
import { giveReceipt, receiptOf, writerOf } from './receipts';

/*
 * Notes and photos lie beside a job or a board, not in it: undo does not reach them, and they go when it goes. The browser
 * gives a note its id, so that one that was sent twice, or sent an hour late, is there once.
 */

interface NoteRow {
  id: string;
  version: number;
  content: string;
  widthPx: number | null;
  heightPx: number | null;
  bytes: number | null;
}

const ROW = `SELECT n.id, n.version, n.content, p.width_px AS widthPx, p.height_px AS heightPx, p.bytes FROM note n
  LEFT JOIN photo p ON p.note_id = n.id`;

const noteOf = ({ id, version, content, widthPx, heightPx, bytes }: NoteRow): Note => ({
  ...(JSON.parse(content) as NoteContent),
  id,
  version,
  ...(widthPx !== null && heightPx !== null && bytes !== null ? { photo: { widthPx, heightPx, bytes } } : {}),
});

const noSuchNote = () => problem(404, 'No such note', 'This note is not here any more.');

async function findNote(manager: EntityManager, { shop }: Caller, id: string): Promise<Note | undefined> {
  const [row]: NoteRow[] = isUuid(id)
    ? await manager.query(`${ROW} WHERE n.id = ? AND n.shop_id = ?`, [id, shop])
    : [];
  return row && noteOf(row);
}

/** Bytes that the photos of a shop take, those of notes that were taken away among them. */
async function usedBy(manager: EntityManager, shop: string): Promise<number> {
  const [{ used }]: { used: string | null }[] = await manager.query(
    'SELECT SUM(bytes) AS used FROM photo WHERE shop_id = ?',
    [shop],
  );
  return Number(used ?? 0);
}

/** The notes of a job or a board, the oldest first; those taken away more than 30 days ago are gone for good. */
export async function listNotes(
  source: DataSource,
  { shop }: Caller,
  of: { job: string } | { board: string },
  mostBytes: number,
): Promise<NotesReply> {
  const [column, id] = 'job' in of ? ['job_id', of.job] : ['board_id', of.board];
  await source.query('DELETE FROM note WHERE shop_id = ? AND removed_at < ?', [
    shop,
    new Date(Date.now() - KEPT_DAYS * 86_400_000),
  ]);
  const rows: NoteRow[] = isUuid(id)
    ? await source.query(`${ROW} WHERE n.${column} = ? AND n.shop_id = ? ORDER BY n.taken_at, n.created_at`, [
        id,
        shop,
      ])
    : [];
  return { notes: rows.map(noteOf), usedBytes: await usedBy(source.manager, shop), mostBytes };
}

/** Refuses a note of a job or board that is not the shop's, or that has too many. */
async function findPlace(manager: EntityManager, caller: Caller, { job, board }: NoteContent): Promise<void> {
  if (job !== undefined) notDeleted(await findAnyJob(manager, caller, job));
  else {
    const [row]: unknown[] = isUuid(board ?? '')
      ? await manager.query('SELECT 1 FROM board WHERE id = ? AND shop_id = ?', [board, caller.shop])
      : [];
    if (!row) throw problem(404, 'No such board', 'This board is not on the rack any more.');
  }
  const [{ many }]: { many: string }[] = await manager.query(
    `SELECT COUNT(*) AS many FROM note WHERE ${job === undefined ? 'board_id' : 'job_id'} = ?`,
    [job ?? board],
  );
  if (Number(many) >= MOST_NOTES)
    throw problem(
      409,
      'Too many notes',
      `There are ${many} notes and photos here already; the most is ${MOST_NOTES}. Take some away first.`,
    );
}

type Stored = Note | { current: Note; write?: string };

async function storeNote(
  manager: EntityManager,
  caller: Caller,
  {
    id,
    version,
    note,
    write,
  }: { id: string; version: number; note: NoteContent; write?: string | undefined },
): Promise<Stored> {
  const before = await receiptOf(manager, caller, write);
  const there = await findNote(manager, caller, id);
  const row = [
    JSON.stringify(note),
    note.step ?? null,
    new Date(note.at),
    note.removed ? new Date() : null,
  ] as const;
  if (!there) {
    if (version > 0) throw noSuchNote();
    await findPlace(manager, caller, note);
    await manager.query(
      'INSERT INTO note (content, step, taken_at, removed_at, id, shop_id, job_id, board_id, version) VALUES (?, ?, ?, ?, ?, ?, ?, ?, 1)',
      [...row, id, caller.shop, note.job ?? null, note.board ?? null],
    );
  } else {
    const { id: _i, version: stands, photo: _p, ...content } = there;
    if (before?.subject === id) return { ...there, version: before.version };
    if (isDeepStrictEqual(content, note)) return there;
    if (content.job !== note.job || content.board !== note.board)
      throw badFields([{ path: 'note', reason: 'a note stays with the job or board it was written for' }]);
    if (version !== stands) {
      const maker = await writerOf(manager, id, stands);
      return { current: there, ...(maker ? { write: maker } : {}) };
    }
    // Taken away again later, it counts from the first time on.
    await manager.query(
      'UPDATE note SET content = ?, step = ?, taken_at = ?, removed_at = IF(? IS NULL, NULL, COALESCE(removed_at, ?)), version = version + 1 WHERE id = ?',
      [row[0], row[1], row[2], row[3], row[3], id],
    );
  }
  const stored = (await findNote(manager, caller, id)) as Note;
  // The log has it once somebody looks at it.
  if (stored.job !== undefined) await manager.query('DELETE FROM logged_job WHERE job_id = ?', [stored.job]);
  await giveReceipt(manager, caller, write, { subject: id, version: stored.version });
  return stored;
}

/** A UUID that the database takes: of a version, and of the variant of RFC 9562. */
const GIVEN = /^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/i;

const isDuplicate = (error: unknown) => (error as { code?: string }).code === 'ER_DUP_ENTRY';

/**
 * Writes a note under the id its browser gave it, or changes it where nobody else did since `version`; 409 with what stands
 * otherwise. The same one sent again is answered as before and written once.
 */
export async function saveNote(
  source: DataSource,
  caller: Caller,
  change: { id: string; version: number; note: NoteContent; write?: string | undefined },
): Promise<Note> {
  const { id } = change;
  if (!GIVEN.test(id))
    throw badFields([{ path: 'id', reason: 'the id of a note is a UUID, as RFC 9562 has it' }]);
  const stored = await transact(source, (manager) => storeNote(manager, caller, change)).catch(
    async (error: unknown) => {
      if (!isDuplicate(error)) throw error;
      // Two sent the same one at once, or it is another shop's.
      if (!(await findNote(source.manager, caller, id)))
        throw problem(409, 'Taken', 'A note of another shop has this id.');
      return transact(source, (manager) => storeNote(manager, caller, change));
    },
  );
  if (!('current' in stored)) return stored;
  throw problem(
    409,
    'Changed elsewhere',
    `This note is at version ${stored.current.version}; your change was made from version ${change.version}. It is kept in this browser until you choose.`,
    stored,
  );
}

const digestOf = (bytes: Buffer) => createHash('sha256').update(bytes).digest('hex');

/**
 * Keeps the photo of a note. A note has one: the same file sent again is answered as before, another one is refused. Refused
 * too where the shop's photos would take more than they may.
 */
export async function keepPhoto(
  source: DataSource,
  caller: Caller,
  { id, bytes, mostBytes }: { id: string; bytes: Buffer; mostBytes: number },
): Promise<Note> {
  if (!(await findNote(source.manager, caller, id))) throw noSuchNote();
  const digest = digestOf(bytes);
  const [had]: { digest: string }[] = await source.query('SELECT digest FROM photo WHERE note_id = ?', [id]);
  if (!had) {
    const { image, small, widthPx, heightPx } = await readPhoto(bytes);
    await transact(source, async (manager) => {
      // One photo of a shop at a time is counted.
      await manager.query('SELECT id FROM shop WHERE id = ? FOR UPDATE', [caller.shop]);
      const used = await usedBy(manager, caller.shop);
      const more = image.length + small.length;
      if (used + more > mostBytes)
        throw problem(
          413,
          'No room for photos',
          `The photos of this shop take ${megabytes(used)} of ${megabytes(mostBytes)}; this one needs ${megabytes(more)} more. Take some away, or give them more room (JUNTA_PHOTOS_MB). Those taken away still count for ${KEPT_DAYS} days.`,
        );
      await manager.query(
        'INSERT INTO photo (note_id, shop_id, digest, width_px, height_px, bytes, image, small) VALUES (?, ?, ?, ?, ?, ?, ?, ?)',
        [id, caller.shop, digest, widthPx, heightPx, more, image, small],
      );
    }).catch((error: unknown) => {
      if (!isDuplicate(error)) throw error;
    });
  }
  const [kept]: { digest: string }[] = await source.query('SELECT digest FROM photo WHERE note_id = ?', [id]);
  if (kept && kept.digest !== digest)
    throw problem(409, 'Has a photo', 'This note has another photo already. Write a new note for this one.');
  const note = await findNote(source.manager, caller, id);
  if (!note) throw noSuchNote();
  return note;
}

/** The photo of a note as it is kept, WebP. */
export async function readKept(
  source: DataSource,
  { shop }: Caller,
  id: string,
  size: 'image' | 'small',
): Promise<Buffer> {
  const [row]: { bytes: Buffer }[] = isUuid(id)
    ? await source.query(`SELECT ${size} AS bytes FROM photo WHERE note_id = ? AND shop_id = ?`, [id, shop])
    : [];
  if (!row) throw problem(404, 'No such photo', 'This photo is not here any more.');
  return row.bytes;
}

import { setImmediate } from 'node:timers/promises';
import type { DataSource } from 'typeorm';
import type { BuildDocument } from '../core/document';
import { type BoardCut, boardsCut, linesOf, type LogLine, noteLine } from '../core/log';
import type { NoteContent } from '../core/notes';
import type { Caller } from './caller';
import { transact } from './database';
import type { JobChoices } from './logentities';
import { type JobColumns, NEWEST, readable, type Text } from './jobs';

/*
 * The log is made of the jobs: the lines of each are written anew once somebody asks and the job has changed since. So nothing that is
 * read at the bench waits for it, a log of jobs made before there was one is whole, and it never says what the job does not.
 */

/** Lines of one statement. */
const AT_ONCE = 500;
/** How a job is turned into lines; a later one writes the log of all jobs anew. */
const EDITION = 3;
const editionOf = (version: number): number => version * 100 + EDITION;

type LineOf = (line: LogLine) => unknown;
/** The columns of a line, in the order they are written. */
const COLUMNS: readonly (readonly [name: string, of: LineOf])[] = [
  ['line', ({ id }) => id],
  ['kind', ({ kind }) => kind],
  ['step_kind', ({ stepKind }) => stepKind],
  ['tool', ({ tool }) => tool ?? null],
  ['wood', ({ wood }) => wood ?? null],
  ['dimension', ({ dimension }) => dimension ?? null],
  ['taken_at', ({ at }) => new Date(at)],
  ['predicted', ({ predicted }) => predicted ?? null],
  ['measured', ({ measured }) => measured ?? null],
  ['likely', ({ likely }) => likely ?? null],
  ['band', ({ band }) => band ?? null],
  ['said', ({ name, words }) => [name, words].filter(Boolean).join(': ').slice(0, 300)],
  ['details', ({ rows: _rows, ...line }) => JSON.stringify(line)],
  ['taught', ({ rows }) => (rows.length > 0 ? JSON.stringify(rows) : null)],
];

/** What the lines of a job can be narrowed by: the list of all jobs is made of these, and of no line. */
const choicesIn = (lines: readonly LogLine[], boards: BoardCut[]): JobChoices => ({
  ...(boards.length > 0 ? { boards } : {}),
  lines: lines.length,
  tools: Object.fromEntries(
    lines.flatMap(({ tool, toolName }) => (tool === undefined ? [] : [[tool, toolName ?? tool]])),
  ),
  woods: [...new Set(lines.flatMap(({ wood }) => wood ?? []))],
  stepKinds: [...new Set(lines.flatMap(({ stepKind }) => stepKind || []))],
});

async function writeLines(
  source: DataSource,
  job: { id: string; shop: string; version: number },
  lines: readonly LogLine[],
  boards: BoardCut[],
): Promise<void> {
  await transact(source, async (manager) => {
    // Two that ask at once write one after the other.
    const [row]: { version: number }[] = await manager.query(
      'SELECT version FROM job WHERE id = ? FOR UPDATE',
      [job.id],
    );
    if (row?.version !== job.version) return;
    await manager.query('DELETE FROM log_line WHERE job_id = ?', [job.id]);
    for (let from = 0; from < lines.length; from += AT_ONCE)
      await manager.query(
        `INSERT INTO log_line (shop_id, job_id, ${COLUMNS.map(([name]) => name).join(', ')}) VALUES ?`,
        [
          lines
            .slice(from, from + AT_ONCE)
            .map((line) => [job.shop, job.id, ...COLUMNS.map(([, of]) => of(line))]),
        ],
      );
    await manager.query('REPLACE INTO logged_job (job_id, version, choices) VALUES (?, ?, ?)', [
      job.id,
      editionOf(job.version),
      JSON.stringify(choicesIn(lines, boards)),
    ]);
  });
}

/** The notes of a job that were not taken away. */
async function notesOf(source: DataSource, job: string, build: BuildDocument): Promise<LogLine[]> {
  const rows: { id: string; content: string; photo: string }[] = await source.query(
    'SELECT n.id, n.content, EXISTS (SELECT 1 FROM photo p WHERE p.note_id = n.id) AS photo FROM note n WHERE n.job_id = ? AND n.removed_at IS NULL',
    [job],
  );
  return rows.map(({ id, content, photo }) => {
    const { at, step, words, who } = JSON.parse(content) as NoteContent;
    return noteLine(build, {
      id,
      at,
      words,
      photo: Number(photo) > 0,
      ...(step === undefined ? {} : { step }),
      ...(who === undefined ? {} : { who }),
    });
  });
}

/** Brings the log up to the jobs as they stand. Gives the names of those that could not be read: their lines stay as they were. */
export async function refreshLog(source: DataSource, { shop }: Caller): Promise<string[]> {
  const stale: { id: string }[] = await source.query(
    `SELECT j.id FROM job j LEFT JOIN logged_job l ON l.job_id = j.id
      WHERE j.shop_id = ? AND j.deleted_at IS NULL AND (l.version IS NULL OR l.version <> j.version * 100 + ${EDITION})`,
    [shop],
  );
  const unread: string[] = [];
  for (const { id } of stale) {
    const [job]: (JobColumns & Text)[] = await source.query(`${NEWEST} AND j.id = ?`, [shop, id]);
    if (!job) continue;
    const text = readable(job);
    if (text === undefined) {
      unread.push(job.name);
      continue;
    }
    const build = JSON.parse(text) as BuildDocument;
    const lines = [...linesOf(build, job.changed.toISOString()), ...(await notesOf(source, id, build))];
    await writeLines(source, { id, shop, version: job.version }, lines, boardsCut(build));
    // Others are answered in between: a job is played forward once for each step that was read.
    await setImmediate();
  }
  return unread;
}

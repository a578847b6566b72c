import Papa from 'papaparse';
import type { DataSource } from 'typeorm';
import {
  LOG_FILTERS,
  LOG_PAGE,
  type LogFilter,
  type LoggedCause,
  type LoggedLine,
  type LogPoint,
  type LogReply,
  type LogRowsReply,
  MOST_POINTS,
  MOST_ROWS,
} from '../contract/log';
import { type DatedRow, scoreOf, type Score, SEASONS, type TaughtRow } from '../core/log';
import type { Caller } from './caller';
import { isUuid } from './ids';
import type { JobChoices } from './logentities';
import { refreshLog } from './logbook';

/* What is read of the log: pages and points of it, rows to learn from, and all of it as a table. */

/** What of the address narrows the log; what is no text is left out. */
export const filterOf = (query: Record<string, unknown>): LogFilter =>
  Object.fromEntries(
    LOG_FILTERS.flatMap((name) => {
      const value = query[name];
      return typeof value === 'string' && value !== '' ? [[name, value.slice(0, 200)] as const] : [];
    }),
  );

const DAY = /^\d{4}-\d{2}-\d{2}$/;
/** Months of each season, by their numbers. */
const MONTHS: Readonly<Record<string, number[]>> = Object.fromEntries(
  SEASONS.map((season, i) => [season, [1, 2, 3].map((n) => ((3 * i + n + 10) % 12) + 1)]),
);

/** What narrows the log, as a condition on its lines alone: jobs are looked up before, since there are few of them and many lines. */
async function whereOf(
  source: DataSource,
  { shop }: Caller,
  filter: LogFilter = {},
): Promise<{ where: string; values: unknown[] }> {
  const parts = ['l.shop_id = ?'];
  const values: unknown[] = [shop];
  const add = (part: string, ...more: unknown[]) => {
    parts.push(part);
    values.push(...more);
  };
  const ids = async (condition: string, ...more: unknown[]): Promise<string[]> =>
    (
      (await source.query(`SELECT id FROM job j WHERE j.shop_id = ? AND ${condition}`, [shop, ...more])) as {
        id: string;
      }[]
    ).map(({ id }) => id);
  const deleted = await ids('j.deleted_at IS NOT NULL');
  if (deleted.length > 0) add('l.job_id NOT IN (?)', deleted);
  if (filter.kind) add('l.kind = ?', filter.kind);
  if (filter.tool) add('l.tool = ?', filter.tool);
  if (filter.wood) add('l.wood = ?', filter.wood);
  if (filter.stepKind) add('l.step_kind = ?', filter.stepKind);
  if (filter.dimension) add('l.dimension = ?', filter.dimension);
  if (filter.job) add(isUuid(filter.job) ? 'l.job_id = ?' : '? IS NULL', filter.job);
  if (filter.season && MONTHS[filter.season]) add('MONTH(l.taken_at) IN (?)', MONTHS[filter.season]);
  if (filter.from && DAY.test(filter.from)) add('l.taken_at >= ?', new Date(`${filter.from}T00:00:00Z`));
  if (filter.to && DAY.test(filter.to))
    add('l.taken_at < ? + INTERVAL 1 DAY', new Date(`${filter.to}T00:00:00Z`));
  if (filter.text) {
    const like = `%${filter.text.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
    const named = await ids('j.name LIKE ?', like);
    if (named.length > 0) add('(l.said LIKE ? OR l.job_id IN (?))', like, named);
    else add('l.said LIKE ?', like);
  }
  return { where: parts.join(' AND '), values };
}

const NEWEST_FIRST = 'ORDER BY l.taken_at DESC';
const WITHIN = "SUM(l.kind = 'size' AND ABS(l.measured - l.predicted) <= l.likely)";

interface LineText {
  job: string;
  jobName: string;
  details: string;
}
const lineOf = ({ job, jobName, details }: LineText): LoggedLine => ({
  ...JSON.parse(details),
  job,
  jobName,
});
type Where = Awaited<ReturnType<typeof whereOf>>;

/** Whole lines: found by what is narrowed by, and only then read. */
const linesIn = (
  source: DataSource,
  { where, values }: Where,
  { most, skip = 0, order = NEWEST_FIRST }: { most: number; skip?: number; order?: string },
): Promise<LineText[]> =>
  source.query(
    `SELECT l.job_id AS job, j.name AS jobName, l.details
      FROM (SELECT l.id FROM log_line l WHERE ${where} ${order} LIMIT ${most} OFFSET ${skip}) found
      JOIN log_line l ON l.id = found.id JOIN job j ON j.id = l.job_id ${order}`,
    values,
  );

/** A page of the log, brought up to the jobs as they stand. */
export async function readLog(source: DataSource, caller: Caller, filter: LogFilter): Promise<LogReply> {
  const unread = await refreshLog(source, caller);
  const asked = await whereOf(source, caller, filter);
  const all = await whereOf(source, caller);
  const skip = Math.max(0, Math.floor(Number(filter.skip ?? 0)) || 0);
  const [lines, counts, points, choices, causes, score] = await Promise.all([
    linesIn(source, asked, { most: LOG_PAGE, skip }),
    source.query(
      `SELECT COUNT(*) AS total, SUM(l.kind = 'size') AS sizes, ${WITHIN} AS within FROM log_line l WHERE ${asked.where}`,
      asked.values,
    ) as Promise<{ total: string; sizes: string | null; within: string | null }[]>,
    pointsOf(source, asked),
    choicesOf(source, caller),
    causesOfShop(source, all),
    scoreOfShop(source, all),
  ]);
  const [{ total, sizes, within }] = counts;
  return {
    lines: lines.map(lineOf),
    total: Number(total),
    sizes: Number(sizes ?? 0),
    within: Number(within ?? 0),
    points,
    choices,
    causes,
    score,
    unread,
  };
}

async function pointsOf(source: DataSource, { where, values }: Where): Promise<LogPoint[]> {
  const rows: {
    at: Date;
    predicted: number;
    measured: number;
    likely: number;
    tool: string | null;
    wood: string | null;
    stepKind: string;
  }[] = await source.query(
    `SELECT l.taken_at AS at, l.predicted, l.measured, l.likely, l.tool, l.wood, l.step_kind AS stepKind FROM log_line l
      WHERE ${where} AND l.kind = 'size' AND l.predicted IS NOT NULL AND l.measured IS NOT NULL
      ORDER BY l.taken_at DESC LIMIT ${MOST_POINTS}`,
    values,
  );
  return rows.map(({ at, tool, wood, likely, ...row }) => ({
    ...row,
    likely: likely ?? 0,
    at: at.toISOString(),
    ...(tool === null ? {} : { tool }),
    ...(wood === null ? {} : { wood }),
  }));
}

async function choicesOf(source: DataSource, { shop }: Caller): Promise<LogReply['choices']> {
  const rows: { id: string; name: string; choices: string }[] = await source.query(
    `SELECT j.id, j.name, g.choices FROM logged_job g JOIN job j ON j.id = g.job_id
      WHERE j.shop_id = ? AND j.deleted_at IS NULL ORDER BY j.changed_at`,
    [shop],
  );
  const own = rows
    .map(({ choices, ...job }) => ({ job, choices: JSON.parse(choices) as JobChoices }))
    .filter(({ choices }) => choices.lines > 0);
  const all = (of: 'woods' | 'stepKinds') => [...new Set(own.flatMap(({ choices }) => choices[of]))].sort();
  const byName = (a: { name: string }, b: { name: string }) => a.name.localeCompare(b.name);
  // A machine is called as the job that was changed last calls it: the kit may have it no more.
  const tools = Object.entries(
    Object.assign({}, ...own.map(({ choices }) => choices.tools)) as Record<string, string>,
  );
  return {
    tools: tools.map(([id, name]) => ({ id, name })).sort(byName),
    woods: all('woods'),
    stepKinds: all('stepKinds'),
    jobs: own.map(({ job }) => job).sort(byName),
  };
}

/** The most failures that causes are counted of. */
const MOST_CAUSES = 2000;

async function causesOfShop(source: DataSource, { where, values }: Where): Promise<LoggedCause[]> {
  const rows = await linesIn(
    source,
    { where: `${where} AND l.kind = 'failure'`, values },
    { most: MOST_CAUSES },
  );
  return rows.map((row) => {
    const { cause, struck, lostMinor, warned, at, job } = lineOf(row);
    return { cause, struck, lostMinor, warned, at, job };
  });
}

/** The score counts the newest readings: a shop of long ago is another shop. */
const SCORED = 5000;

async function scoreOfShop(source: DataSource, { where, values }: Where): Promise<Score> {
  const rows: { at: Date; predicted: number; measured: number; likely: number; band: number | null }[] =
    await source.query(
      `SELECT l.taken_at AS at, l.predicted, l.measured, l.likely, l.band FROM log_line l
        WHERE ${where} AND l.kind = 'size' ORDER BY l.taken_at DESC LIMIT ${SCORED}`,
      values,
    );
  return scoreOf(
    rows.map(({ at, band, ...row }) => ({
      ...row,
      at: at.toISOString(),
      ...(band === null ? {} : { band }),
    })),
  );
}

/** The rows that the log learns from, the newest of them. */
export async function readLogRows(source: DataSource, caller: Caller): Promise<LogRowsReply> {
  await refreshLog(source, caller);
  const { where, values } = await whereOf(source, caller);
  const lines: { job: string; at: Date; tool: string | null; wood: string | null; taught: string }[] =
    await source.query(
      `SELECT l.job_id AS job, l.taken_at AS at, l.tool, l.wood, l.taught FROM log_line l
        WHERE ${where} AND l.taught IS NOT NULL ORDER BY l.taken_at DESC LIMIT ${MOST_ROWS}`,
      values,
    );
  // A line is as good as a row here: few lines teach nothing.
  const [{ many }]: { many: string }[] = await source.query(
    `SELECT COUNT(*) AS many FROM log_line l WHERE ${where}`,
    values,
  );
  const rows = lines.flatMap(({ job, at, tool, wood, taught }) =>
    (JSON.parse(taught) as TaughtRow[]).map(
      (row): DatedRow => ({
        ...row,
        job,
        at: at.toISOString(),
        ...(tool === null ? {} : { tool }),
        ...(wood === null ? {} : { wood }),
      }),
    ),
  );
  const cut: { choices: string }[] = await source.query(
    'SELECT g.choices FROM logged_job g JOIN job j ON j.id = g.job_id WHERE j.shop_id = ? AND j.deleted_at IS NULL',
    [caller.shop],
  );
  const boards = cut.flatMap(({ choices }) => (JSON.parse(choices) as JobChoices).boards ?? []);
  return { rows, boards, older: lines.length < MOST_ROWS ? 0 : Math.max(0, Number(many) - lines.length) };
}

/** The most lines of one table, so that a spreadsheet still opens it. */
const MOST_TABLE = 250_000;
/** The columns of the table, each with what of a line stands in it. */
const COLUMNS: readonly (readonly [head: string, of: keyof LoggedLine])[] = [
  ['taken', 'at'],
  ['job', 'jobName'],
  ['step', 'name'],
  ['kind of step', 'stepKind'],
  ['what', 'kind'],
  ['dimension', 'dimension'],
  ['piece', 'piece'],
  ['machine', 'toolName'],
  ['wood', 'wood'],
  ['predicted', 'predicted'],
  ['measured', 'measured'],
  ['likely', 'likely'],
  ['who', 'who'],
  ['gauge', 'gauge'],
  ['words', 'words'],
];

/** All that fits what was asked as a table: sizes in mm, times in minutes, with points for decimals. */
export async function readLogCsv(
  source: DataSource,
  caller: Caller,
  filter: LogFilter,
): Promise<{ csv: string }> {
  await refreshLog(source, caller);
  const lines = await linesIn(source, await whereOf(source, caller, filter), {
    most: MOST_TABLE,
    order: 'ORDER BY l.taken_at',
  });
  const fields = COLUMNS.map(([head]) => head);
  const data = lines.map((text) => {
    const line = lineOf(text);
    return COLUMNS.map(([, of]) => line[of]);
  });
  // A spreadsheet must not take a name for a formula.
  return { csv: Papa.unparse({ fields, data }, { escapeFormulae: true }) };
}

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

/** The condition that a filter asks for, with its values. */
function whereOf(shop: string, filter: LogFilter): { where: string; values: unknown[] } {
  const parts = ['l.shop_id = ?', 'j.deleted_at IS NULL'];
  const values: unknown[] = [shop];
  const add = (part: string, ...more: unknown[]) => {
    parts.push(part);
    values.push(...more);
  };
  if (filter.kind) add('l.kind = ?', filter.kind);
  if (filter.tool) add('l.tool = ?', filter.tool);
  if (filter.wood) add('l.wood = ?', filter.wood);
  if (filter.stepKind) add('l.step_kind = ?', filter.stepKind);
  if (filter.dimension) add('l.dimension = ?', filter.dimension);
  if (filter.job) add('CAST(l.job_id AS CHAR) = ?', filter.job);
  if (filter.season && MONTHS[filter.season]) add('MONTH(l.taken_at) IN (?)', MONTHS[filter.season]);
  if (filter.from && DAY.test(filter.from)) add('l.taken_at >= ?', new Date(`${filter.from}T00:00:00Z`));
  if (filter.to && DAY.test(filter.to))
    add('l.taken_at < ? + INTERVAL 1 DAY', new Date(`${filter.to}T00:00:00Z`));
  if (filter.text) {
    const like = `%${filter.text.replace(/[\\%_]/g, (sign) => `\\${sign}`)}%`;
    add(
      "(j.name LIKE ? OR JSON_VALUE(l.details, '$.name') LIKE ? OR JSON_VALUE(l.details, '$.words') LIKE ?)",
      like,
      like,
      like,
    );
  }
  return { where: parts.join(' AND '), values };
}

const FROM = 'FROM log_line l JOIN job j ON j.id = l.job_id';
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

/** A page of the log, brought up to the jobs as they stand. */
export async function readLog(source: DataSource, caller: Caller, filter: LogFilter): Promise<LogReply> {
  const unread = await refreshLog(source, caller);
  const { where, values } = whereOf(caller.shop, filter);
  const skip = Math.max(0, Math.floor(Number(filter.skip ?? 0)) || 0);
  const [lines, counts, points, choices, causes, score] = await Promise.all([
    source.query(
      `SELECT l.job_id AS job, j.name AS jobName, l.details ${FROM} WHERE ${where} ORDER BY l.taken_at DESC, l.id DESC LIMIT ${LOG_PAGE} OFFSET ${skip}`,
      values,
    ) as Promise<LineText[]>,
    source.query(
      `SELECT COUNT(*) AS total, SUM(l.kind = 'size') AS sizes, ${WITHIN} AS within ${FROM} WHERE ${where}`,
      values,
    ) as Promise<{ total: string; sizes: string | null; within: string | null }[]>,
    pointsOf(source, where, values),
    choicesOf(source, caller),
    causesOfShop(source, caller),
    scoreOfShop(source, caller),
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

async function pointsOf(source: DataSource, where: string, values: unknown[]): Promise<LogPoint[]> {
  const rows: {
    at: Date;
    predicted: number;
    measured: number;
    likely: number;
    tool: string | null;
    wood: string | null;
    stepKind: string;
  }[] = await source.query(
    `SELECT l.taken_at AS at, l.predicted, l.measured, l.likely, l.tool, l.wood, l.step_kind AS stepKind ${FROM}
        WHERE ${where} AND l.kind = 'size' AND l.predicted IS NOT NULL AND l.measured IS NOT NULL ORDER BY l.taken_at DESC, l.id DESC LIMIT ${MOST_POINTS}`,
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
  const all = <T>(columns: string): Promise<T[]> =>
    source.query(`SELECT DISTINCT ${columns} ${FROM} WHERE l.shop_id = ? AND j.deleted_at IS NULL`, [shop]);
  const [tools, woods, stepKinds, jobs] = await Promise.all([
    source.query(
      `SELECT l.tool AS id, MAX(JSON_VALUE(l.details, '$.toolName')) AS name ${FROM} WHERE l.shop_id = ? AND j.deleted_at IS NULL AND l.tool IS NOT NULL GROUP BY l.tool`,
      [shop],
    ) as Promise<{ id: string; name: string | null }[]>,
    all<{ wood: string | null }>('l.wood AS wood'),
    all<{ kind: string }>('l.step_kind AS kind'),
    all<{ id: string; name: string }>('l.job_id AS id, j.name AS name'),
  ]);
  const byName = (a: { name: string }, b: { name: string }) => a.name.localeCompare(b.name);
  return {
    tools: tools.map(({ id, name }) => ({ id, name: name ?? id })).sort(byName),
    woods: woods.flatMap(({ wood }) => wood ?? []).sort(),
    stepKinds: stepKinds.map(({ kind }) => kind).sort(),
    jobs: jobs.sort(byName),
  };
}

/** The most failures that causes are counted of. */
const MOST_CAUSES = 2000;

async function causesOfShop(source: DataSource, { shop }: Caller): Promise<LoggedCause[]> {
  const rows: LineText[] = await source.query(
    `SELECT l.job_id AS job, j.name AS jobName, l.details ${FROM}
      WHERE l.shop_id = ? AND j.deleted_at IS NULL AND l.kind = 'failure' ORDER BY l.taken_at DESC LIMIT ${MOST_CAUSES}`,
    [shop],
  );
  return rows.map((row) => {
    const { cause, struck, lostMinor, at, job } = lineOf(row);
    return { cause, struck, lostMinor, at, job };
  });
}

/** The score counts the newest readings: a shop of long ago is another shop. */
const SCORED = 5000;

async function scoreOfShop(source: DataSource, { shop }: Caller): Promise<Score> {
  const rows: { at: Date; predicted: number; measured: number; likely: number; band: string | null }[] =
    await source.query(
      `SELECT l.taken_at AS at, l.predicted, l.measured, l.likely, JSON_VALUE(l.details, '$.band') AS band ${FROM}
        WHERE l.shop_id = ? AND j.deleted_at IS NULL AND l.kind = 'size' ORDER BY l.taken_at DESC LIMIT ${SCORED}`,
      [shop],
    );
  return scoreOf(
    rows.map(({ at, band, ...row }) => ({
      ...row,
      at: at.toISOString(),
      ...(band === null ? {} : { band: Number(band) }),
    })),
  );
}

/** The rows that the log learns from, the newest of them. */
export async function readLogRows(source: DataSource, caller: Caller): Promise<LogRowsReply> {
  await refreshLog(source, caller);
  const where = 'l.shop_id = ? AND j.deleted_at IS NULL AND l.taught IS NOT NULL';
  const lines: { job: string; at: Date; tool: string | null; wood: string | null; taught: string }[] =
    await source.query(
      `SELECT l.job_id AS job, l.taken_at AS at, l.tool, l.wood, l.taught ${FROM} WHERE ${where} ORDER BY l.taken_at DESC, l.id DESC LIMIT ${MOST_ROWS}`,
      [caller.shop],
    );
  const [{ many }]: { many: string }[] = await source.query(
    `SELECT COUNT(*) AS many ${FROM} WHERE ${where}`,
    [caller.shop],
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
  return { rows, older: Number(many) - lines.length };
}

/** The most lines of one table, so that a spreadsheet still opens it. */
const MOST_TABLE = 250_000;
const HEADS = [
  'taken',
  'job',
  'step',
  'kind of step',
  'what',
  'dimension',
  'piece',
  'machine',
  'wood',
  'predicted',
  'measured',
  'likely',
  'who',
  'gauge',
  'words',
] as const;

/** All that fits what was asked as a table: sizes in mm, times in minutes, with points for decimals. */
export async function readLogCsv(
  source: DataSource,
  caller: Caller,
  filter: LogFilter,
): Promise<{ csv: string }> {
  await refreshLog(source, caller);
  const { where, values } = whereOf(caller.shop, filter);
  const lines: LineText[] = await source.query(
    `SELECT l.job_id AS job, j.name AS jobName, l.details ${FROM} WHERE ${where} ORDER BY l.taken_at, l.id LIMIT ${MOST_TABLE}`,
    values,
  );
  const data = lines.map((text) => {
    const {
      at,
      jobName,
      name,
      stepKind,
      kind,
      dimension,
      piece,
      toolName,
      wood,
      predicted,
      measured,
      likely,
      who,
      gauge,
      words,
    } = lineOf(text);
    return [
      at,
      jobName,
      name,
      stepKind,
      kind,
      dimension,
      piece,
      toolName,
      wood,
      predicted,
      measured,
      likely,
      who,
      gauge,
      words,
    ];
  });
  // A spreadsheet must not take a name for a formula.
  return { csv: Papa.unparse({ fields: [...HEADS], data }, { escapeFormulae: true }) };
}

import { EntitySchema } from 'typeorm';
import type { BoardCut } from '../core/log';
import { json } from './columns';

/** A line of the log: what is filtered by as columns, the whole beside them. */
export interface LogLineRow {
  id: string;
  shopId: string;
  jobId: string;
  line: string;
  kind: string;
  stepKind: string;
  tool: string | null;
  wood: string | null;
  dimension: string | null;
  takenAt: Date;
  predicted: number | null;
  measured: number | null;
  likely: number | null;
  band: number | null;
  /** What is searched for words: the step's name, and what was said. */
  said: string;
  /** Everything else that the line says, and the rows it teaches. */
  details: unknown;
  taught: unknown;
}
const number = { type: 'double', nullable: true } as const;
export const LogLineEntity = new EntitySchema<LogLineRow>({
  name: 'log_line',
  columns: {
    id: { type: 'bigint', primary: true, generated: 'increment' },
    shopId: { name: 'shop_id', type: 'uuid' },
    jobId: { name: 'job_id', type: 'uuid' },
    line: { type: 'varchar', length: 160 },
    kind: { type: 'varchar', length: 20 },
    stepKind: { name: 'step_kind', type: 'varchar', length: 40 },
    tool: { type: 'varchar', length: 80, nullable: true },
    wood: { type: 'varchar', length: 80, nullable: true },
    dimension: { type: 'varchar', length: 20, nullable: true },
    takenAt: { name: 'taken_at', type: 'datetime', precision: 3 },
    predicted: number,
    measured: number,
    likely: number,
    band: number,
    said: { type: 'varchar', length: 300 },
    details: { type: 'longtext', transformer: json },
    taught: { type: 'longtext', transformer: json, nullable: true },
  },
  indices: [
    // Holds everything that the log is narrowed by: what is counted never reads the lines themselves.
    {
      name: 'ix_log_line_facts',
      columns: [
        'shopId',
        'takenAt',
        'kind',
        'stepKind',
        'tool',
        'wood',
        'dimension',
        'predicted',
        'measured',
        'likely',
        'band',
        'jobId',
        'said',
      ],
    },
    { name: 'ix_log_line_kind', columns: ['shopId', 'kind', 'takenAt'] },
    { name: 'ix_log_line_job', columns: ['jobId'] },
  ],
  foreignKeys: (['shop', 'job'] as const).map((target) => ({
    name: `fk_log_line_${target}`,
    target,
    columnNames: [`${target}Id`],
    referencedColumnNames: ['id'],
    onDelete: 'CASCADE' as const,
  })),
});

/** What of a job's lines the log can be narrowed by: machines with the names they had, woods, kinds of step. */
export interface JobChoices {
  /** How many lines it has. */
  lines: number;
  tools: Record<string, string>;
  woods: string[];
  /** Its boards, once they are cut. */
  boards?: BoardCut[];
  stepKinds: string[];
}

/** Which version of a job stands in the log, with what it can be narrowed by. */
export interface LoggedJobRow {
  jobId: string;
  version: number;
  choices: JobChoices;
}
export const LoggedJobEntity = new EntitySchema<LoggedJobRow>({
  name: 'logged_job',
  columns: {
    jobId: { name: 'job_id', type: 'uuid', primary: true },
    version: { type: 'bigint' },
    choices: { type: 'longtext', transformer: json },
  },
  foreignKeys: [
    {
      name: 'fk_logged_job_job',
      target: 'job',
      columnNames: ['jobId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
  ],
});

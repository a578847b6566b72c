import { EntitySchema } from 'typeorm';
import type { BoardEvent } from '../contract/board';
import type { BoardStock, BuildDocument, JobGist } from '../core/document';
import type { Adhesive, AllowanceName, ClampSet, Machine, Saw, ShopSnapshot } from '../core/kit';
import type { Length } from '../core/units';
import { created, json } from './columns';
import { LoggedJobEntity, LogLineEntity } from './logentities';
import { NoteEntity, PhotoEntity } from './noteentities';

/** A shop: everything below belongs to one. `version` counts changes of its settings and kit. */
export interface ShopRow {
  id: string;
  name: string;
  version: number;
  settings: Omit<ShopSnapshot, 'name' | 'saws' | 'machines' | 'allowances' | 'clamps' | 'adhesives'> & {
    /** Which of these the shop has entered itself; an empty rack is not an unknown one. */
    entered?: ('clamps' | 'adhesives')[];
  };
  /** The made-up shop that came with Junta. */
  demo: boolean;
  removedAt: Date | null;
  createdAt: Date;
}
export const ShopEntity = new EntitySchema<ShopRow>({
  name: 'shop',
  columns: {
    id: { type: 'uuid', primary: true },
    name: { type: 'varchar', length: 80 },
    version: { type: 'int' },
    settings: { type: 'longtext', transformer: json },
    demo: { type: 'boolean', default: false },
    removedAt: { name: 'removed_at', type: 'datetime', precision: 3, nullable: true },
    createdAt: { name: 'created_at', ...created },
  },
});

/** One item of the shop's kit: a saw, a machine, clamps alike, a bottle of glue or an allowance. */
export interface KitRow<T> {
  id: string;
  shopId: string;
  code: string;
  position: number;
  details: T;
}
const kitEntity = <T>(name: string) =>
  new EntitySchema<KitRow<T>>({
    name,
    columns: {
      id: { type: 'uuid', primary: true },
      shopId: { name: 'shop_id', type: 'uuid' },
      code: { type: 'varchar', length: 80 },
      position: { type: 'int' },
      details: { type: 'longtext', transformer: json },
    },
    uniques: [{ name: `uq_${name}_code`, columns: ['shopId', 'code'] }],
    foreignKeys: [
      {
        name: `fk_${name}_shop`,
        target: 'shop',
        columnNames: ['shopId'],
        referencedColumnNames: ['id'],
        onDelete: 'CASCADE',
      },
    ],
  });
export const SawEntity = kitEntity<Saw>('saw');
export const MachineEntity = kitEntity<Machine>('machine');
export const ClampSetEntity = kitEntity<ClampSet>('clamp_set');
export const AdhesiveEntity = kitEntity<Adhesive>('adhesive');
export const AllowanceEntity = kitEntity<{ name: AllowanceName; amount: Length }>('allowance');

/** A job; its newest build is the revision with the same version that was not put aside. */
export interface JobRow {
  id: string;
  shopId: string;
  name: string;
  purpose: string;
  version: number;
  tags: string[] | null;
  /** What lists show of its newest build; null until it is first listed by this release. */
  gist: JobGist | null;
  putAwayAt: Date | null;
  deletedAt: Date | null;
  createdAt: Date;
  changedAt: Date;
}
export const JobEntity = new EntitySchema<JobRow>({
  name: 'job',
  columns: {
    id: { type: 'uuid', primary: true },
    shopId: { name: 'shop_id', type: 'uuid' },
    name: { type: 'varchar', length: 120 },
    purpose: { type: 'varchar', length: 400 },
    version: { type: 'int' },
    tags: { type: 'longtext', transformer: json, nullable: true },
    gist: { type: 'longtext', transformer: json, nullable: true },
    putAwayAt: { name: 'put_away_at', type: 'datetime', precision: 3, nullable: true },
    deletedAt: { name: 'deleted_at', type: 'datetime', precision: 3, nullable: true },
    createdAt: { name: 'created_at', ...created },
    changedAt: { name: 'changed_at', ...created },
  },
  indices: [{ name: 'ix_job_shop_changed', columns: ['shopId', 'changedAt'] }],
  foreignKeys: [
    {
      name: 'fk_job_shop',
      target: 'shop',
      columnNames: ['shopId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
  ],
});

/** One kept build of a job, thinned with age (thinning.ts); `aside` means it lost a conflict. */
export interface RevisionRow {
  id: string;
  shopId: string;
  jobId: string;
  version: number;
  aside: boolean;
  /** Marked by a maker: it stays, however old it grows. */
  marked: boolean;
  build: BuildDocument;
  /** SHA-256 of the stored text: tells a repeated write from a new one, and a damaged row from a whole one. */
  digest: string | null;
  /** Who made it; unknown of versions made before this was noted. */
  madeBy: string | null;
  createdAt: Date;
}
export const RevisionEntity = new EntitySchema<RevisionRow>({
  name: 'job_revision',
  columns: {
    id: { type: 'uuid', primary: true },
    shopId: { name: 'shop_id', type: 'uuid' },
    jobId: { name: 'job_id', type: 'uuid' },
    version: { type: 'int' },
    aside: { type: 'boolean', default: false },
    marked: { type: 'boolean', default: false },
    build: { type: 'longtext', transformer: json },
    digest: { type: 'varchar', length: 64, nullable: true },
    madeBy: { name: 'made_by', type: 'varchar', length: 80, nullable: true },
    createdAt: { name: 'created_at', ...created },
  },
  indices: [{ name: 'ix_revision_job_version', columns: ['jobId', 'version'] }],
  foreignKeys: [
    {
      name: 'fk_job_revision_shop',
      target: 'shop',
      columnNames: ['shopId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
    {
      name: 'fk_job_revision_job',
      target: 'job',
      columnNames: ['jobId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
  ],
});

/** A board on the rack, or one that was used up and is kept for its history. */
export interface BoardRow {
  id: string;
  shopId: string;
  number: string;
  /** 1 while it is on the rack, null once it is used up: numbers are unique among boards on the rack. */
  live: number | null;
  species: string;
  lengthMm: number;
  widthMm: number;
  thicknessMm: number;
  version: number;
  jobId: string | null;
  details: Omit<BoardStock, 'id' | 'taken'>;
  history: BoardEvent[];
  createdAt: Date;
}
export const BoardEntity = new EntitySchema<BoardRow>({
  name: 'board',
  columns: {
    id: { type: 'uuid', primary: true },
    shopId: { name: 'shop_id', type: 'uuid' },
    number: { type: 'varchar', length: 40, collation: 'utf8mb4_bin' },
    live: { type: 'tinyint', nullable: true },
    species: { type: 'varchar', length: 80 },
    lengthMm: { name: 'length_mm', type: 'double' },
    widthMm: { name: 'width_mm', type: 'double' },
    thicknessMm: { name: 'thickness_mm', type: 'double' },
    version: { type: 'int' },
    jobId: { name: 'job_id', type: 'uuid', nullable: true },
    details: { type: 'longtext', transformer: json },
    history: { type: 'longtext', transformer: json },
    createdAt: { name: 'created_at', ...created },
  },
  uniques: [{ name: 'uq_board_number', columns: ['shopId', 'live', 'number'] }],
  indices: [{ name: 'ix_board_job', columns: ['jobId'] }],
  foreignKeys: [
    {
      name: 'fk_board_shop',
      target: 'shop',
      columnNames: ['shopId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
    {
      name: 'fk_board_job',
      target: 'job',
      columnNames: ['jobId'],
      referencedColumnNames: ['id'],
      onDelete: 'SET NULL',
    },
  ],
});

/**
 * That a write was carried out: its own id, what it changed and which version that made. A write repeated after a lost
 * answer finds its receipt and changes nothing. `answer` holds what was answered where a version does not say it all.
 */
export interface ReceiptRow {
  write: string;
  shopId: string;
  subject: string;
  version: number;
  answer: unknown;
  createdAt: Date;
}
export const ReceiptEntity = new EntitySchema<ReceiptRow>({
  name: 'receipt',
  columns: {
    write: { name: 'write_id', type: 'varchar', length: 64, primary: true },
    shopId: { name: 'shop_id', type: 'uuid' },
    subject: { type: 'uuid' },
    version: { type: 'int' },
    answer: { type: 'longtext', transformer: json, nullable: true },
    createdAt: { name: 'created_at', ...created },
  },
  indices: [
    { name: 'ix_receipt_subject', columns: ['subject', 'version'] },
    { name: 'ix_receipt_created', columns: ['createdAt'] },
  ],
  foreignKeys: [
    {
      name: 'fk_receipt_shop',
      target: 'shop',
      columnNames: ['shopId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
  ],
});

/** Something that happened in a shop and that open pages are told of; kept for an hour. */
export interface EventRow {
  id: string;
  shopId: string;
  kind: string;
  subject: string | null;
  data: unknown;
  createdAt: Date;
}
export const EventEntity = new EntitySchema<EventRow>({
  name: 'event',
  columns: {
    id: { type: 'bigint', primary: true, generated: 'increment' },
    shopId: { name: 'shop_id', type: 'uuid' },
    kind: { type: 'varchar', length: 20 },
    subject: { type: 'varchar', length: 80, nullable: true },
    data: { type: 'longtext', transformer: json, nullable: true },
    createdAt: { name: 'created_at', ...created },
  },
  indices: [{ name: 'ix_event_created', columns: ['createdAt'] }],
  foreignKeys: [
    {
      name: 'fk_event_shop',
      target: 'shop',
      columnNames: ['shopId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
  ],
});

/** A wait of a job that began, and when it is over; it rings on every open page until somebody heard it. */
export interface TimerRow {
  jobId: string;
  task: string;
  shopId: string;
  step: string;
  words: string;
  until: Date;
  heardAt: Date | null;
}
export const TimerEntity = new EntitySchema<TimerRow>({
  name: 'timer',
  columns: {
    jobId: { name: 'job_id', type: 'uuid', primary: true },
    task: { type: 'varchar', length: 160, primary: true },
    shopId: { name: 'shop_id', type: 'uuid' },
    step: { type: 'varchar', length: 80 },
    words: { type: 'varchar', length: 200 },
    until: { type: 'datetime', precision: 3 },
    heardAt: { name: 'heard_at', type: 'datetime', precision: 3, nullable: true },
  },
  indices: [{ name: 'ix_timer_shop_until', columns: ['shopId', 'until'] }],
  foreignKeys: [
    {
      name: 'fk_timer_shop',
      target: 'shop',
      columnNames: ['shopId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
    {
      name: 'fk_timer_job',
      target: 'job',
      columnNames: ['jobId'],
      referencedColumnNames: ['id'],
      onDelete: 'CASCADE',
    },
  ],
});

export const ENTITIES = [
  ShopEntity,
  SawEntity,
  MachineEntity,
  ClampSetEntity,
  AdhesiveEntity,
  AllowanceEntity,
  JobEntity,
  RevisionEntity,
  BoardEntity,
  ReceiptEntity,
  EventEntity,
  TimerEntity,
  LogLineEntity,
  LoggedJobEntity,
  NoteEntity,
  PhotoEntity,
];

import { EntitySchema } from 'typeorm';
import type { NoteContent } from '../core/notes';
import { created, json } from './columns';

/** A note of a job or a board: its words and marks, with the moment it was taken. Taken away, it is kept for 30 days more. */
export interface NoteRow {
  id: string;
  shopId: string;
  jobId: string | null;
  boardId: string | null;
  step: string | null;
  version: number;
  content: NoteContent;
  takenAt: Date;
  removedAt: Date | null;
  createdAt: Date;
}
export const NoteEntity = new EntitySchema<NoteRow>({
  name: 'note',
  columns: {
    id: { type: 'uuid', primary: true },
    shopId: { name: 'shop_id', type: 'uuid' },
    jobId: { name: 'job_id', type: 'uuid', nullable: true },
    boardId: { name: 'board_id', type: 'uuid', nullable: true },
    step: { type: 'varchar', length: 80, nullable: true },
    version: { type: 'int' },
    content: { type: 'longtext', transformer: json },
    takenAt: { name: 'taken_at', type: 'datetime', precision: 3 },
    removedAt: { name: 'removed_at', type: 'datetime', precision: 3, nullable: true },
    createdAt: { name: 'created_at', ...created },
  },
  indices: [
    { name: 'ix_note_job', columns: ['jobId'] },
    { name: 'ix_note_board', columns: ['boardId'] },
  ],
  foreignKeys: (['shop', 'job', 'board'] as const).map((target) => ({
    name: `fk_note_${target}`,
    target,
    columnNames: [`${target}Id`],
    referencedColumnNames: ['id'],
    onDelete: 'CASCADE',
  })),
});

/** The photo of a note, as it is kept and small; `digest` is that of the file that came in. */
export interface PhotoRow {
  noteId: string;
  shopId: string;
  digest: string;
  widthPx: number;
  heightPx: number;
  bytes: number;
  image: Buffer;
  small: Buffer;
  createdAt: Date;
}
export const PhotoEntity = new EntitySchema<PhotoRow>({
  name: 'photo',
  columns: {
    noteId: { name: 'note_id', type: 'uuid', primary: true },
    shopId: { name: 'shop_id', type: 'uuid' },
    digest: { type: 'varchar', length: 64 },
    widthPx: { name: 'width_px', type: 'int' },
    heightPx: { name: 'height_px', type: 'int' },
    bytes: { type: 'int' },
    image: { type: 'mediumblob' },
    small: { type: 'mediumblob' },
    createdAt: { name: 'created_at', ...created },
  },
  indices: [{ name: 'ix_photo_shop', columns: ['shopId'] }],
  foreignKeys: (['shop', 'note'] as const).map((target) => ({
    name: `fk_photo_${target}`,
    target,
    columnNames: [`${target}Id`],
    referencedColumnNames: ['id'],
    onDelete: 'CASCADE',
  })),
});

import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { expect, it } from 'vitest';
import { STEP_ROOMS } from './list';

const folder = import.meta.dirname;

it.each(
  STEP_ROOMS.map((room) => [room.kind, room] as const),
)('%s has a room of its own, with its test', (kind, room) => {
  expect(readdirSync(join(folder, kind))).toEqual(expect.arrayContaining([`${kind}.ts`, `${kind}.test.ts`]));
  expect(room.says).toMatch(/^[A-Z].*\.$/);
  // What a blade or a cutter does carries the usual caution.
  if (room.sawing || room.machining) expect(room.caution).toMatch(/manual.* comes? first\.$/);
});

import { mkdtempSync, rmSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
// @ts-expect-error plain JavaScript without declarations
import { build } from './build.mjs';
import { tortureDocuments } from './torture/documents';
import { tortureHttp } from './torture/http';
import { tortureKills } from './torture/kills';
import { tortureMigrations } from './torture/migrations';
// @ts-expect-error plain JavaScript without declarations
import { bundleTorture } from './torture/bundle.mjs';

/* The short form of npm run torture: the same seeds, fewer of each. Counts and bounds; times belong to the long form. */
let folder = '';
beforeAll(async () => {
  await build();
  folder = mkdtempSync(resolve('dist', 'torture-'));
  await bundleTorture(folder);
}, 180_000);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

describe('tortured', () => {
  it('by kills of server and database, no acknowledged edit is lost and none conflicts', async () => {
    const fared = await tortureKills(3, 4);
    expect(fared).toMatchObject({ kills: 4, lost: 0, falseConflicts: 0, broken: [] });
    expect(fared.acknowledged).toBeGreaterThan(10);
  }, 180_000);
  it('by kills in the middle of an install and an upgrade, the next start has the right tables and all rows', async () => {
    const fared = await tortureMigrations(3, 3);
    expect(fared).toMatchObject({ kills: 3, wrong: [] });
  }, 180_000);
  it('by mutated bodies, floods and races, nothing is answered 500 and one of each race wins', async () => {
    const fared = await tortureHttp(3, 110, 8);
    expect(fared.broken).toEqual([]);
    expect([fared.versionRaces.wrong, fared.boardRaces.wrong]).toEqual([0, 0]);
    expect(fared.accepted).toBeGreaterThan(5);
    expect(fared.grownMb).toBeLessThan(200);
    expect(fared.peakMb).toBeLessThan(400);
  }, 180_000);
  it('by mutated documents, the core throws at none and comes back from every one', async () => {
    const fared = await tortureDocuments(3, 150, join(folder, 'documents.worker.mjs'));
    expect(fared).toMatchObject({ documents: 150, thrown: [], lost: [] });
    expect(fared.accepted).toBeGreaterThan(20);
  }, 240_000);
});

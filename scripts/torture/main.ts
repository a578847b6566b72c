import { resolve } from 'node:path';
import { tortureDocuments } from './documents';
import { tortureHttp } from './http';
import { tortureKills } from './kills';
import { tortureMigrations } from './migrations';

/*
 * npm run torture: kills, races and mutated documents, bounded and from one seed, on a database and servers of their own
 * on loopback. Prints a table. JUNTA_SEED sets the seed.
 */
const seed = Number(process.env.JUNTA_SEED ?? 1);

interface Row {
  what: string;
  measured: string;
  wanted: string;
  met: boolean;
}
const rows: Row[] = [];
const row = (what: string, measured: string, wanted: string, met: boolean) => {
  rows.push({ what, measured, wanted, met });
  console.log(`${met ? 'met ' : 'MISS'}  ${what.padEnd(52)}  ${measured.padEnd(46)}  ${wanted}`);
};
const said: string[] = [];
const say = (lines: readonly string[]) => said.push(...lines.slice(0, 20));

console.log(`Seed ${seed}`);
const kills = await tortureKills(seed, 40);
row(
  `${kills.kills} kills of server and database, edits lost`,
  `${kills.lost} of ${kills.acknowledged} acknowledged`,
  '0',
  kills.lost === 0,
);
row('  false conflicts', String(kills.falseConflicts), '0', kills.falseConflicts === 0);
row('  answers that should not be', String(kills.broken.length), '0', kills.broken.length === 0);
say(kills.broken);

const migrations = await tortureMigrations(seed, 30);
row(
  `${migrations.kills} kills in installs and upgrades, wrong after`,
  `${migrations.wrong.length} (${migrations.inTheMiddle} fell before all was done)`,
  '0',
  migrations.wrong.length === 0 && migrations.inTheMiddle > 0,
);
say(migrations.wrong);

const http = await tortureHttp(seed, 2000, 100);
row(
  `${http.requests} bad requests, answers of 500 or none`,
  `${http.broken.length} (${http.accepted} accepted)`,
  '0',
  http.broken.length === 0,
);
row('  slowest answer', `${http.slowestMs.toFixed(0)} ms`, 'under 2000 ms', http.slowestMs < 2000);
row(
  '  bodies of 4 MB made to hurt, slowest',
  `${http.hurtMs.toFixed(0)} ms`,
  'under 500 ms',
  http.hurtMs < 500,
);
row('  memory grown by them', `${http.grownMb.toFixed(0)} MB`, 'under 200 MB', http.grownMb < 200);
row('  memory of the server, most', `${http.peakMb.toFixed(0)} MB`, 'under 400 MB', http.peakMb < 400);
row(
  `${http.versionRaces.races} races for one version, wrong`,
  String(http.versionRaces.wrong),
  '0',
  http.versionRaces.wrong === 0,
);
row(
  `${http.boardRaces.races} races for one board, wrong`,
  String(http.boardRaces.wrong),
  '0',
  http.boardRaces.wrong === 0,
);
say(http.broken);

const documents = await tortureDocuments(seed, 20_000, resolve('dist/torture/documents.worker.mjs'));
row(
  `${documents.documents} mutated documents, thrown at`,
  `${documents.thrown.length} (${documents.accepted} accepted by the contract)`,
  '0',
  documents.thrown.length === 0,
);
row('  never came back', String(documents.lost.length), '0', documents.lost.length === 0);
row(
  '  over 2 s',
  `${documents.slow.length}, slowest ${documents.slowestMs.toFixed(0)} ms`,
  '0',
  documents.slow.length === 0,
);
row(
  '  memory, most',
  `${documents.peakMb.toFixed(0)} MB in two threads`,
  'under 400 MB a thread',
  documents.peakMb < 800,
);
say(documents.thrown.map(({ i, words }) => `document ${i}: ${words}`));
say(documents.lost.map((i) => `document ${i} never came back`));
say(documents.slow.map(({ i, ms }) => `document ${i}: ${ms.toFixed(0)} ms`));

if (said.length > 0) console.log(`\n${said.join('\n')}`);
console.log(`\n${rows.filter(({ met }) => met).length} met, ${rows.filter(({ met }) => !met).length} missed`);
process.exit(rows.every(({ met }) => met) ? 0 : 1);

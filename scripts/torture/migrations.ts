import { createConnection, type Connection } from 'mysql2/promise';
import { randomFrom } from '../../contract/mutate.fixture';
import { demoBoards } from '../../demo/boards';
import { demoJobs } from '../../demo/jobs';
import { demoShop } from '../../demo/shop';
import { dataSourceFor } from '../../server/database';
import { MIGRATIONS } from '../../server/migrations';
import { openVictim, pause, send, type Victim } from './house';

/** What became of installs and upgrades that were killed. */
export interface MigrationsFared {
  kills: number;
  /** Kills after which the next start did not end up with the right tables and all rows, and why. */
  wrong: string[];
  /** Kills that fell before everything was done. */
  inTheMiddle: number;
}

const SCHEMA_BEFORE = MIGRATIONS.slice(0, 3);

const empty = async (connection: Connection) => {
  await connection.query('DROP DATABASE junta');
  await connection.query('CREATE DATABASE junta CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci');
};

/** Fills a database as the release before this one left it: its tables, a shop, jobs with versions, boards. */
async function asBefore(victim: Victim, connection: Connection): Promise<void> {
  const source = dataSourceFor(victim.settings, SCHEMA_BEFORE);
  await source.initialize();
  await source.runMigrations({ transaction: 'none' });
  await source.destroy();
  await connection.query('USE junta');
  const shop = '11111111-1111-4111-8111-111111111111';
  const { name, saws, machines, allowances, clamps: _c, adhesives: _a, ...settings } = demoShop;
  await connection.query('INSERT INTO shop (id, name, version, settings) VALUES (?, ?, 1, ?)', [
    shop,
    name,
    JSON.stringify(settings),
  ]);
  const kit = async (table: string, items: { code: string; details: unknown }[]) => {
    for (const [i, { code, details }] of items.entries())
      await connection.query(
        `INSERT INTO \`${table}\` (id, shop_id, code, position, details) VALUES (UUID(), ?, ?, ?, ?)`,
        [shop, code, i, JSON.stringify(details)],
      );
  };
  await kit(
    'saw',
    saws.map((saw) => ({ code: saw.id, details: saw })),
  );
  await kit(
    'machine',
    machines.map((machine) => ({ code: machine.id, details: machine })),
  );
  await kit(
    'allowance',
    Object.entries(allowances).map(([code, amount]) => ({ code, details: { name: code, amount } })),
  );
  for (const [i, job] of demoJobs.entries()) {
    const id = `22222222-2222-4222-8222-${String(i).padStart(12, '0')}`;
    await connection.query('INSERT INTO job (id, shop_id, name, purpose, version) VALUES (?, ?, ?, ?, 3)', [
      id,
      shop,
      job.name,
      job.use,
    ]);
    for (const version of [1, 2, 3])
      await connection.query(
        'INSERT INTO job_revision (id, shop_id, job_id, version, aside, build) VALUES (UUID(), ?, ?, ?, 0, ?)',
        [shop, id, version, JSON.stringify(job)],
      );
  }
  for (const [i, board] of demoBoards.entries())
    await connection.query(
      'INSERT INTO board (id, shop_id, number, live, species, length_mm, width_mm, thickness_mm, version, details, history) VALUES (UUID(), ?, ?, 1, ?, ?, ?, ?, 1, ?, ?)',
      [
        shop,
        `${board.label}-${i}`,
        board.species,
        board.length.mm,
        board.width.mm,
        board.thickness.mm,
        JSON.stringify(board),
        '[]',
      ],
    );
}

/** Whether everything had been done before the kill: every migration noted, and a shop there. */
async function isDone(connection: Connection): Promise<boolean> {
  try {
    const [rows] = await connection.query(
      'SELECT (SELECT COUNT(*) FROM migrations) AS made, (SELECT COUNT(*) FROM shop) AS shops',
    );
    const [{ made, shops }] = rows as { made: number; shops: number }[];
    return Number(made) === MIGRATIONS.length && Number(shops) > 0;
  } catch {
    return false;
  }
}

/** What is not as it should be once a server says that it is well. */
async function wrongWith(
  victim: Victim,
  connection: Connection,
  upgrade: boolean,
): Promise<string | undefined> {
  const source = dataSourceFor(victim.settings);
  await source.initialize();
  const { upQueries } = await source.driver.createSchemaBuilder().log();
  await source.destroy();
  if (upQueries.length > 0) return `tables differ: ${upQueries[0].query}`;
  await connection.query('USE junta');
  const count = async (table: string) =>
    Number(((await connection.query(`SELECT COUNT(*) AS n FROM \`${table}\``))[0] as { n: number }[])[0].n);
  const wanted: [string, number][] = [
    ['shop', 1],
    ['job', demoJobs.length],
    ['job_revision', demoJobs.length * (upgrade ? 3 : 1)],
    ['board', demoBoards.length],
    ['saw', demoShop.saws.length],
    ['migrations', MIGRATIONS.length],
  ];
  for (const [table, rows] of wanted)
    if ((await count(table)) !== rows) return `${table} has ${await count(table)} rows, not ${rows}`;
  const [without] = (
    await connection.query(
      'SELECT COUNT(*) AS n FROM job_revision WHERE digest IS NULL OR digest <> SHA2(build, 256)',
    )
  )[0] as { n: number }[];
  if (Number(without.n) > 0) return `${without.n} versions have no digest`;
  const jobs = await send(`${victim.url}/api/jobs`);
  return jobs.status === 200 ? undefined : `jobs are answered ${jobs.status}`;
}

/** Kills server or database at random moments of an install and of an upgrade, and starts again each time. */
export async function tortureMigrations(seed: number, kills: number): Promise<MigrationsFared> {
  const random = randomFrom(seed);
  const victim = await openVictim({ server: false });
  const fared: MigrationsFared = { kills: 0, wrong: [], inTheMiddle: 0 };
  const connect = () => createConnection({ ...victim.settings, multipleStatements: false });
  try {
    for (let i = 0; i < kills; i++) {
      const upgrade = i % 2 === 1;
      let connection = await connect();
      await empty(connection);
      if (upgrade) await asBefore(victim, connection);
      await connection.end();
      await victim.startServer(false);
      await pause(random() * (upgrade ? 120 : 260));
      if (random() < 0.6) await victim.killServer();
      else {
        await victim.killDatabase();
        await victim.killServer();
        await victim.startDatabase();
      }
      fared.kills += 1;
      connection = await connect();
      if (!(await isDone(connection))) fared.inTheMiddle += 1;
      await connection.end();
      const failed = await victim.startServer().then(
        () => undefined,
        (error: Error) => `does not start: ${error.message}`,
      );
      connection = await connect();
      const wrong = failed ?? (await wrongWith(victim, connection, upgrade));
      if (wrong) fared.wrong.push(`${upgrade ? 'upgrade' : 'install'} ${i}: ${wrong}`);
      await victim.killServer();
      await connection.end();
    }
    return fared;
  } finally {
    await victim.close();
  }
}

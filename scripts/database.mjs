import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import {
  cpSync,
  existsSync,
  mkdirSync,
  mkdtempSync,
  openSync,
  readFileSync,
  renameSync,
  rmSync,
  statfsSync,
  writeFileSync,
} from 'node:fs';
import { connect } from 'node:net';
import { tmpdir, userInfo } from 'node:os';
import { join, resolve } from 'node:path';
import { databaseProgram } from './machine.mjs';
import { PATIENCE_MS } from './patience.mjs';

const sleep = (ms) => new Promise((done) => setTimeout(done, ms));

/** Whether a MariaDB server greets on the port of loopback. Ready means that: a TCP connection alone is not enough. */
export function greets(port) {
  return new Promise((done) => {
    const socket = connect({ port, host: '127.0.0.1' });
    const end = (answer) => {
      socket.destroy();
      done(answer);
    };
    socket.setTimeout(1000, () => end(false));
    socket.on('error', () => end(false));
    socket.on('data', (data) => end(data.length > 4 && data[4] === 10));
  });
}

/** The process id of a server that already runs on this data, or undefined. */
export function runningPid(dataDir) {
  try {
    const pid = Number(readFileSync(join(dataDir, 'mariadb', 'mariadb.pid'), 'utf8').trim());
    const command = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
    return command.includes('mariadbd') && command.includes(join(dataDir, 'mariadb')) ? pid : undefined;
  } catch {
    return undefined;
  }
}

/** The password of this installation's database user, made once. */
function passwordOf(dataDir) {
  const file = join(dataDir, 'password');
  if (!existsSync(file)) writeFileSync(file, randomBytes(18).toString('base64url'), { mode: 0o600 });
  return readFileSync(file, 'utf8').trim();
}

function createData(dataDir, user) {
  // The installer fails on paths with spaces, so it works in a plain temporary folder.
  const work = mkdtempSync(join(tmpdir(), 'junta-db-'));
  const made = spawnSync(
    'mariadb-install-db',
    [
      '--no-defaults',
      `--datadir=${work}/d`,
      '--auth-root-authentication-method=socket',
      `--auth-root-socket-user=${user}`,
      '--skip-test-db',
      '--skip-name-resolve',
      `--user=${user}`,
    ],
    // A database server that starts clears the temporary tables of others out of the folder they share.
    { encoding: 'utf8', env: { ...process.env, TMPDIR: work } },
  );
  if (made.status !== 0)
    throw new Error(
      `The database could not be created: ${made.stderr || made.error?.message || made.stdout}`,
    );
  // Copied beside its place and moved there whole: a kill in the middle leaves no half of a database.
  const part = join(dataDir, 'mariadb.part');
  rmSync(part, { recursive: true, force: true });
  cpSync(join(work, 'd'), part, { recursive: true });
  renameSync(part, join(dataDir, 'mariadb'));
  rmSync(work, { recursive: true, force: true });
}

/** Refuses a database directory that lacks what every one has, and says what to do. */
function needWhole(dataDir) {
  const missing = ['ibdata1', 'mysql'].filter((name) => !existsSync(join(dataDir, 'mariadb', name)));
  if (missing.length > 0)
    throw new Error(
      `The database in ${join(dataDir, 'mariadb')} is half made or damaged: ${missing.join(' and ')} ${missing.length > 1 ? 'are' : 'is'} missing. If nothing was stored in it yet, remove that folder and start again; otherwise put a copy of it back.`,
    );
}

/** With less room than this a database can neither be made nor recover, MB. */
const LEAST_ROOM_MB = 48;

/** Room on the disk of a folder, MB. */
export function roomLeft(folder) {
  const { bavail, bsize } = statfsSync(folder);
  return (bavail * bsize) / 1024 / 1024;
}

function needRoom(dataDir) {
  const room = roomLeft(dataDir);
  if (room < LEAST_ROOM_MB)
    throw new Error(
      `The disk is full: ${room.toFixed(0)} MB are left where the data lies (${dataDir}), and the database needs ${LEAST_ROOM_MB}. Make room and start again; nothing stored is lost.`,
    );
}

/**
 * Starts the project's own database server on loopback, or adopts the one that already runs on this data. `fast`
 * gives up durability, for tests. Resolves when it greets; `stop` ends it, `kill` ends it the hard way.
 */
export async function startDatabase({ dataDir: where, port, fast = false }) {
  const dataDir = resolve(where);
  const user = userInfo().username;
  mkdirSync(dataDir, { recursive: true });
  const password = passwordOf(dataDir);
  const settings = { host: '127.0.0.1', port, user: 'junta', password, database: 'junta' };
  const adopted = runningPid(dataDir);
  if (adopted && (await greets(port))) return { settings, pid: adopted, adopted: true, ...endings(adopted) };
  // It runs on this data but at another port: it ends in its own time before it is started at this one.
  if (adopted) await endings(adopted).stop();
  if (!adopted && (await greets(port)))
    throw new Error(`Port ${port} is taken by another database server. Set JUNTA_DB_PORT to a free one.`);
  needRoom(dataDir);
  if (!existsSync(join(dataDir, 'mariadb'))) createData(dataDir, user);
  needWhole(dataDir);
  mkdirSync(join(dataDir, 'tmp'), { recursive: true });
  writeFileSync(
    join(dataDir, 'init.sql'),
    [
      'CREATE DATABASE IF NOT EXISTS junta CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci;',
      "CREATE USER IF NOT EXISTS 'junta'@'127.0.0.1';",
      `ALTER USER 'junta'@'127.0.0.1' IDENTIFIED BY '${password}';`,
      "GRANT ALL ON junta.* TO 'junta'@'127.0.0.1';",
      '',
    ].join('\n'),
    { mode: 0o600 },
  );
  const log = openSync(join(dataDir, 'mariadb.log'), 'a');
  const child = spawn(
    databaseProgram(),
    [
      '--no-defaults',
      `--datadir=${join(dataDir, 'mariadb')}`,
      `--tmpdir=${join(dataDir, 'tmp')}`,
      '--socket=mariadb.sock',
      '--pid-file=mariadb.pid',
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      '--skip-name-resolve',
      `--init-file=${join(dataDir, 'init.sql')}`,
      '--character-set-server=utf8mb4',
      '--collation-server=utf8mb4_unicode_520_ci',
      '--innodb-log-file-size=96M',
      '--innodb-buffer-pool-size=128M',
      `--user=${user}`,
      ...(fast ? ['--innodb-flush-log-at-trx-commit=0', '--skip-innodb-doublewrite'] : []),
    ],
    { stdio: ['ignore', log, log], detached: true },
  );
  child.unref();
  let exited = false;
  child.on('exit', () => {
    exited = true;
  });
  const until = Date.now() + PATIENCE_MS;
  while (Date.now() < until) {
    if (exited) throw new Error(`The database server stopped at once; see ${join(where, 'mariadb.log')}.`);
    if (await greets(port)) return { settings, pid: child.pid, adopted: false, child, ...endings(child.pid) };
    await sleep(100);
  }
  throw new Error(
    `The database server did not answer within ${PATIENCE_MS / 1000} s; see ${join(where, 'mariadb.log')}.`,
  );
}

const alive = (pid) => {
  try {
    // A killed child of this process stays a zombie until it is waited for; that counts as gone.
    return !/\) Z /.test(readFileSync(`/proc/${pid}/stat`, 'utf8'));
  } catch {
    return false;
  }
};

function endings(pid) {
  const end = async (signal) => {
    if (alive(pid)) process.kill(pid, signal);
    for (let i = 0; i < 400 && alive(pid); i++) await sleep(50);
    if (alive(pid)) process.kill(pid, 'SIGKILL');
    for (let i = 0; i < 100 && alive(pid); i++) await sleep(50);
  };
  const gone = async () => {
    while (alive(pid)) await sleep(250);
  };
  return { stop: () => end('SIGTERM'), kill: () => end('SIGKILL'), gone };
}

import { spawnSync } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync, statfsSync } from 'node:fs';
import { freemem } from 'node:os';
import { join } from 'node:path';

/** A message for the person at the terminal, then the end. */
export function giveUp(message) {
  console.error(`\n${message}\n`);
  process.exit(1);
}

const SERVER = ['/usr/sbin/mariadbd', '/usr/libexec/mariadbd', '/usr/bin/mariadbd'];

/** The database server's program, or undefined where it is not installed. */
export const databaseProgram = () => SERVER.find((path) => existsSync(path));

/** The browser for the tests, or undefined where it is not installed. */
export const browserProgram = () =>
  ['/usr/bin/chromium', '/usr/bin/chromium-browser'].find((path) => existsSync(path));

function runs(command, args) {
  return spawnSync(command, args, { stdio: 'ignore' }).status === 0;
}

/** Installs Debian packages: as root, or through sudo where that works without a question; else says what to type. */
export function installPackages(packages) {
  const command = `apt-get install -y --no-install-recommends ${packages.join(' ')}`;
  const root = process.getuid?.() === 0;
  const sudo = !root && runs('sudo', ['-n', 'true']);
  if (!existsSync('/usr/bin/apt-get') || (!root && !sudo))
    giveUp(
      `Junta needs ${packages.join(' and ')}. Please run, as an administrator:\n\n    ${command}\n\nand start again.`,
    );
  console.log(`Installing ${packages.join(', ')} ...`);
  const prefix = sudo ? ['sudo', '-n'] : [];
  const apt = (args) => {
    const [program, ...rest] = [...prefix, 'apt-get', ...args];
    return (
      spawnSync(program, rest, {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      }).status === 0
    );
  };
  const install = ['install', '-y', '--no-install-recommends', ...packages];
  if (!apt(install) && !(apt(['update']) && apt(install)))
    giveUp(`Installing failed. Please run:\n\n    ${command}\n\nand start again.`);
}

/** A program of the second package, which the one that makes the data directory calls. */
const hasDefaultsProgram = () =>
  ['/usr/bin/my_print_defaults', '/usr/local/bin/my_print_defaults'].some((path) => existsSync(path));

/** Makes sure that the database server is installed, with all that it needs to make its data. */
export function needDatabase() {
  if (!databaseProgram() || !hasDefaultsProgram())
    installPackages(['mariadb-server-core', 'mariadb-client-core']);
  if (!databaseProgram()) giveUp('The MariaDB server was installed, but its program mariadbd was not found.');
}

/** Makes sure that the programs are installed that measure printed pages. */
export function needPaper() {
  if (!existsSync('/usr/bin/pdftocairo')) installPackages(['poppler-utils']);
  if (!existsSync('/usr/bin/pdftocairo'))
    giveUp('poppler-utils was installed, but its program was not found.');
}

/** Makes sure that the test browser is installed. */
export function needBrowser() {
  if (!browserProgram()) installPackages(['chromium']);
  if (!browserProgram()) giveUp('Chromium was installed, but its program was not found.');
}

const MEMORY_DISK = '/dev/shm';
/** Room that the files of all tests together leave, and memory beside them, bytes. */
const ROOMY = 6 * 1024 ** 3;

/**
 * From now on temporary files of this process and its children lie in memory, where there is plenty of it: databases and
 * browsers of the tests then wait for no disk. They are removed when it ends.
 */
export function temporaryInMemory() {
  if (process.env.TMPDIR || !existsSync(MEMORY_DISK)) return;
  const { bavail, bsize } = statfsSync(MEMORY_DISK);
  if (bavail * bsize < ROOMY || freemem() < 2 * ROOMY) return;
  const folder = mkdtempSync(join(MEMORY_DISK, 'junta-'));
  process.env.TMPDIR = folder;
  process.on('exit', () => rmSync(folder, { recursive: true, force: true, maxRetries: 5 }));
  // Ended from outside it ends all the same way, and leaves nothing in memory.
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.once(signal, () => process.exit(1));
}

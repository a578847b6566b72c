import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import { giveUp } from './machine.mjs';

/** Installs the npm packages unless they already stand for this lock file and this Node. */
export function needPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19))
    giveUp(`Junta needs Node 20.19 or later of version 20; this is ${process.versions.node}.`);
  const stamp = createHash('sha256')
    .update(readFileSync('package-lock.json'))
    .update(readFileSync('package.json'))
    .update(process.version)
    .digest('hex');
  const file = 'node_modules/.junta-stamp';
  if (existsSync(file) && readFileSync(file, 'utf8') === stamp) return;
  console.log('Installing packages ...');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    stdio: ['ignore', 'ignore', 'inherit'],
  });
  if (done.status !== 0) giveUp('Installing the packages failed (npm ci). The message above says why.');
  mkdirSync('node_modules', { recursive: true });
  writeFileSync(file, stamp);
}

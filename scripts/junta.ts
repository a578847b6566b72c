import { readFileSync, statSync } from 'node:fs';
import { MOST_BYTES } from '../contract/bounds';
import { readDocument, readJobFile } from '../contract/read';
import { jobFileSchema } from '../contract/jsonschema';
import { FORMATS, timelineFormat } from '../core/exchange';
import { stepMenu } from '../core/view';

/*
 * Junta on the command line, without interface, server or database:
 *   predict FILE   the timeline of a job file as JSON
 *   check FILE     whether a file is a job Junta reads, and what is wrong with it
 *   schema         the JSON Schema of a job file
 *   formats        what goes out and in
 *   steps          the kinds of step, and what each does
 *   gauge KIND     a simulated gauge that sends readings to a running Junta (scripts/gauge.ts)
 */
const USAGE =
  'usage: npm run -s junta -- predict FILE | check FILE | schema | formats | steps | gauge KIND --true VALUE';

function fail(lines: string[], code: number): never {
  process.stderr.write(`${lines.join('\n')}\n`);
  process.exit(code);
}

function load(file: string) {
  let content: string;
  try {
    const { size } = statSync(file);
    if (size > MOST_BYTES) fail([`${file}: ${size} bytes; a job file is at most ${MOST_BYTES}.`], 1);
    content = readFileSync(file, 'utf8');
  } catch (error) {
    fail([`${file}: ${(error as Error).message}`], 1);
  }
  const checked = readJobFile(content);
  if (!checked.ok)
    fail(
      checked.problems.map(({ path, reason }) => `${file}: ${path}: ${reason}`),
      1,
    );
  return checked.build;
}

const [command, file] = process.argv.slice(2);
if (command === 'schema') process.stdout.write(`${JSON.stringify(jobFileSchema(), null, 2)}\n`);
else if (command === 'predict' && file) process.stdout.write(timelineFormat.writes(load(file)));
else if (command === 'check' && file)
  process.stdout.write(`${file}: ${readDocument(load(file)).ok ? 'a job this Junta reads' : 'broken'}\n`);
else if (command === 'formats')
  for (const { name, extension, says, reads } of FORMATS)
    process.stdout.write(`${name} (.${extension})${reads ? ', read again' : ''}: ${says}\n`);
else if (command === 'steps')
  for (const { group, kinds } of stepMenu())
    process.stdout.write(`${group}\n${kinds.map(({ name, says }) => `  ${name}: ${says}\n`).join('')}`);
else if (command === 'gauge' && file)
  await (await import('./gauge'))
    .gauge(process.argv.slice(3))
    .catch((error: Error) => fail([error.message], 1));
else fail([USAGE], 2);

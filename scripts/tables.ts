/** Writes the tables of the documents that come from the code: `npm run tables`. */
import { readFileSync, writeFileSync } from 'node:fs';
import { featureTable, fittingTable, stepTable } from '../core/view';
import { findingTable } from './findings';

/** The tables by the name that their place in the document bears. */
export const TABLES: Record<string, { file: string; table: () => string }> = {
  steps: { file: 'docs/format.md', table: stepTable },
  features: { file: 'docs/format.md', table: featureTable },
  fittings: { file: 'docs/format.md', table: fittingTable },
  findings: { file: 'docs/findings.md', table: findingTable },
};

/** A document with a table put between its marks. Refuses a document without them. */
export function withTable(text: string, name: string, table: string): string {
  const [open, close] = [`<!-- ${name} -->\n`, `<!-- /${name} -->`];
  const [from, to] = [text.indexOf(open), text.indexOf(close)];
  if (from < 0 || to < from)
    throw new Error(`tables: no place for “${name}”: it lies between ${open} and ${close}`);
  return `${text.slice(0, from + open.length)}${table}\n${text.slice(to)}`;
}

if (process.argv[1]?.endsWith('tables.ts'))
  for (const [name, { file, table }] of Object.entries(TABLES))
    writeFileSync(file, withTable(readFileSync(file, 'utf8'), name, table()));

import { type ParseError, parseTree } from 'jsonc-parser';
import { FORMAT_VERSION, type BuildDocument } from '../core/document';
import { withUsualShop, type ShopSnapshot } from '../core/kit';
import { asCurrent } from '../core/steps';
import { tooMuch } from './bounds';
import { buildSchema } from './build';
import { type Checked, checkWith, type FieldProblem } from './check';
import { shopSnapshot } from './shop';

/** A document, or what is wrong with it. */
export type ReadDocument = Checked<BuildDocument>;

/** What says that a value is no job of a version this Junta reads: nothing else about it can be trusted then. */
export function notThisFormat(value: unknown): FieldProblem | undefined {
  const { format, version, name } = (value ?? {}) as Record<string, unknown>;
  if (format !== 'junta-build')
    return { path: 'format', reason: 'this is not a Junta job: its “format” should be “junta-build”' };
  if (typeof version === 'number' && version > FORMAT_VERSION) {
    const which = typeof name === 'string' && name ? `“${name.slice(0, 120)}”` : 'this file';
    return {
      path: 'version',
      reason: `${which} is of version ${version}, made by a newer Junta; this one reads up to version ${FORMAT_VERSION}`,
    };
  }
  return undefined;
}

/**
 * The one door by which documents come in: files, rows, kept versions, drafts. Reads every version ever written, fills in
 * what has a usual value, and checks the rest against the contract, format and version first. Never throws.
 */
export function readDocument(value: unknown): ReadDocument {
  const foreign = notThisFormat(value);
  return foreign
    ? { ok: false, problems: [foreign] }
    : (checkWith(buildSchema, asCurrent(value)) as ReadDocument);
}

const shopSchema = shopSnapshot();

/** The same door for the values of a shop, as rows or drafts hold them. */
export const readShop = (value: unknown): Checked<ShopSnapshot> =>
  checkWith(shopSchema, withUsualShop(value)) as Checked<ShopSnapshot>;

/** Reads a job file's text. Answers a broken file with the place where reading stopped, a flood with its size. */
export function readJobFile(content: string): ReadDocument {
  const flood = tooMuch(new TextEncoder().encode(content));
  if (flood) return { ok: false, problems: [{ path: 'the file', reason: `it ${flood}` }] };
  let value: unknown;
  try {
    value = JSON.parse(content);
  } catch (error) {
    return {
      ok: false,
      problems: [{ path: placeOf(content), reason: `this is not JSON: ${(error as Error).message}` }],
    };
  }
  return readDocument(value);
}

/** Line and column where reading stops; JSON.parse itself does not always say. */
function placeOf(content: string): string {
  const errors: ParseError[] = [];
  parseTree(content, errors, { disallowComments: true });
  const at = errors[0]?.offset;
  if (at === undefined || at >= content.length) return 'the end of the file';
  const before = content.slice(0, at);
  return `line ${before.split('\n').length}, column ${before.length - before.lastIndexOf('\n')}`;
}

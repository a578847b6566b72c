import { FORMAT_VERSION } from '../document';
import { from1 } from './from1';
import type { Raw } from './raw';

/** What raises a document of each version to the next, by the version it takes. One file each. */
const RAISE: Record<number, (document: Raw) => Raw> = { 1: from1 };

/** Every version that was ever written and is still read. */
export const READ_VERSIONS: readonly number[] = [...Object.keys(RAISE).map(Number), FORMAT_VERSION];

/**
 * A document of any earlier version as one of this version; one of this version as it is. Undefined for a version that was
 * never written. Expects an object; its content is checked afterwards, by the contract.
 */
export function raised(document: Raw): Raw | undefined {
  let { version } = document;
  let value = document;
  while (typeof version === 'number' && version < FORMAT_VERSION) {
    const raise = RAISE[version];
    if (!raise) return undefined;
    version += 1;
    value = { ...raise(value), version };
  }
  return version === FORMAT_VERSION ? value : undefined;
}

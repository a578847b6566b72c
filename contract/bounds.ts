/** The largest body the server reads and the largest file the interface does: a build of 500 strips and 200 steps is under a tenth of it. */
export const MOST_BYTES = 4 * 1024 * 1024;
/** The most tags of one job, and the most characters of one. */
export const MOST_TAGS = 12;
export const MOST_TAG = 30;
/** The deepest nesting of lists and objects. The contract's own deepest place (a strip's place in a slot) lies at 11. */
export const MOST_DEPTH = 24;
/** The most values in one body. A job of 4 MB has about 180,000, at some 23 bytes a value. */
export const MOST_VALUES = 300_000;
/** The most fields of one object: the settings of a step that Junta only holds may have 500. */
export const MOST_FIELDS = 600;

const [QUOTE, BACKSLASH, COMMA] = [34, 92, 44];
const [OPEN, CLOSE, OPEN_LIST, CLOSE_LIST] = [123, 125, 91, 93];

/**
 * Why JSON text is too much to be read at all, or undefined: more than 4 MB, nested deeper than 24, of more than 300,000
 * values, or with an object of more than 600 fields. One pass over the bytes before anything is built of them, so that
 * a small body cannot cost much memory; whether the text is JSON at all is not asked here.
 */
export function tooMuch(bytes: Uint8Array): string | undefined {
  if (bytes.length > MOST_BYTES)
    return `is ${(bytes.length / 1024 / 1024).toFixed(1)} MB large; the most is ${MOST_BYTES / 1024 / 1024} MB`;
  let depth = 0;
  let values = 1;
  // Commas seen in the object at each depth; a list counts none.
  const fields = new Float64Array(MOST_DEPTH + 2);
  for (let i = 0; i < bytes.length; i++) {
    const c = bytes[i];
    if (c === QUOTE) {
      i += 1;
      while (i < bytes.length && bytes[i] !== QUOTE) i += bytes[i] === BACKSLASH ? 2 : 1;
    } else if (c === OPEN || c === OPEN_LIST) {
      depth += 1;
      values += 1;
      if (depth > MOST_DEPTH) return `is nested deeper than ${MOST_DEPTH} levels`;
      fields[depth] = c === OPEN ? 0 : Number.NEGATIVE_INFINITY;
    } else if (c === CLOSE || c === CLOSE_LIST) depth = Math.max(0, depth - 1);
    else if (c === COMMA) {
      values += 1;
      fields[depth] += 1;
      if (fields[depth] >= MOST_FIELDS) return `has an object of more than ${MOST_FIELDS} fields`;
      if (values > MOST_VALUES) return `holds more than ${MOST_VALUES.toLocaleString('en')} values`;
    }
  }
  return undefined;
}

import Papa from 'papaparse';

/** A table read from text: its heads, its rows, and how it was read. */
export interface CsvTable {
  heads: string[];
  rows: string[][];
  separator: string;
  encoding: string;
  /** Numbers are written with a comma: `12,5`. */
  decimalComma: boolean;
}

/** Signs of Windows-1252 from 0x80 to 0x9f (published code page); a space where it has none. */
const C1_SIGNS = '€ ‚ƒ„…†‡ˆ‰Š‹Œ Ž  ‘’“”•–—˜™š›œ žŸ';

/** Text of a file in whichever encoding it is: UTF-16 by its mark, UTF-8 if it is valid, else Windows-1252. */
export function decodeText(bytes: Uint8Array): { text: string; encoding: string } {
  if (bytes[0] === 0xff && bytes[1] === 0xfe)
    return { text: new TextDecoder('utf-16le').decode(bytes), encoding: 'UTF-16' };
  if (bytes[0] === 0xfe && bytes[1] === 0xff)
    return { text: new TextDecoder('utf-16be').decode(bytes), encoding: 'UTF-16' };
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), encoding: 'UTF-8' };
  } catch {
    const text = new TextDecoder('windows-1252').decode(bytes);
    // Some decoders leave this code page's own signs as control characters.
    const own = (sign: string) => C1_SIGNS[sign.charCodeAt(0) - 0x80] ?? sign;
    return { text: text.replace(/[\u0080-\u009f]/g, own), encoding: 'Windows-1252' };
  }
}

/** Reads a table with commas, semicolons, tabs or bars between its columns; the first row holds the heads. */
export function readCsv(text: string, encoding = 'UTF-8'): CsvTable {
  const parsed = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
  });
  const [heads = [], ...rows] = parsed.data;
  const separator = parsed.meta.delimiter;
  const numbers = rows.flat().filter((cell) => /^\s*\d+[.,]\d+\s*$/.test(cell));
  const commas = numbers.filter((cell) => cell.includes(',')).length;
  return {
    heads: heads.map((head) => head.trim()),
    rows,
    separator,
    encoding,
    decimalComma: separator !== ',' && commas > numbers.length / 2,
  };
}

/** A number of things in words: `1 joint`, `2 joints`. `many` is the word for several, where an s does not make it. */
export const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** Text as it is looked for: small letters, without accents. */
export const plainText = (text: string): string =>
  text.normalize('NFD').replaceAll(/\p{M}/gu, '').toLowerCase();

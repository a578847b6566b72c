/**
 * A new id of 32 hexadecimal digits. From random values alone: over plain HTTP from another host a page is no secure
 * context and has no `crypto.randomUUID`.
 */
export const newId = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  );

/** A name not yet used by an entry of a table of the kit. */
export const freshId = (base: string, used: readonly { id: string }[]): string => {
  let n = used.length + 1;
  while (used.some(({ id }) => id === `${base}-${n}`)) n += 1;
  return `${base}-${n}`;
};

/** A random UUID (RFC 9562, version 4): for what the server keeps under the id that was given here. */
export function newUuid(): string {
  const hex = newId();
  const variant = (8 + (Number.parseInt(hex[16], 16) % 4)).toString(16);
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-4${hex.slice(13, 16)}-${variant}${hex.slice(17, 20)}-${hex.slice(20)}`;
}

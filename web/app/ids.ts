/**
 * A new id of 32 hexadecimal digits. From random values alone: over plain HTTP from another host a page is no secure
 * context and has no `crypto.randomUUID`.
 */
export const newId = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join(
    '',
  );

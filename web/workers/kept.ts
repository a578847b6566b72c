/** The header of an answer that was kept in this browser: the server did not give it just now. */
export const KEPT_HEADER = 'Junta-Kept';
/** What a page says to a new build that waits, when it may take over. */
export const GO_ON = 'go on';

interface Versioned {
  version?: unknown;
}

const isPlain = (value: unknown): value is Record<string, unknown> & Versioned =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/**
 * What is kept of a job once a version of it was stored: the answer that was kept, with the build that was sent and the
 * version it became. Undefined where any of them is not what it should be, or what is kept is newer.
 */
export function withStored(kept: unknown, sent: unknown, answered: unknown): object | undefined {
  if (!isPlain(kept) || !isPlain(sent) || !isPlain(answered)) return undefined;
  const { version } = answered;
  if (typeof version !== 'number' || !isPlain(sent.build)) return undefined;
  if (typeof kept.version === 'number' && kept.version > version) return undefined;
  return { ...kept, version, name: sent.build.name ?? kept.name, build: sent.build };
}

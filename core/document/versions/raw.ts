/** A value as it was read, nothing of it trusted yet. */
export type Raw = Record<string, unknown>;

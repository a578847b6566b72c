/** How long a server or a database may take until it answers, ms: a machine with much else to do takes its time. */
export const PATIENCE_MS = 90_000;

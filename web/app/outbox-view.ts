import { useSyncExternalStore } from 'react';
import type { Draft } from './drafts';
import { unsent, watchOutbox } from './outbox';
import { reach, watchReach, type Reach } from './reach';

/** Everything that is not stored yet, the oldest first. */
export const useUnsent = (): readonly Draft[] => useSyncExternalStore(watchOutbox, unsent);
/** How the server is just now. */
export const useReach = (): Reach => useSyncExternalStore(watchReach, reach);

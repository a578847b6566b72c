import { createListenerMiddleware } from '@reduxjs/toolkit';
import { joinStore } from './store';

/** Carries what happens beside the store: prediction in its worker, and storing. It joins with the first open job. */
export const listener = createListenerMiddleware();
joinStore(listener.middleware);

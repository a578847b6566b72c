import { combineSlices, configureStore, type Middleware } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector, type TypedUseSelectorHook } from 'react-redux';
import { api } from './api';
import type { JobState } from './job';

/** What joins the store later and hears every action first; until then actions pass by. */
let beside: ReturnType<Middleware> | undefined;
const joining: Middleware = () => (next) => (action) => (beside ? beside(next)(action) : next(action));

/** The open job joins when the first job is opened (open-job.ts): the list of jobs needs none of its code. */
export const rootReducer = combineSlices(api).withLazyLoadedSlices<{ job: JobState }>();

export const store = configureStore({
  reducer: rootReducer,
  // Builds and outlooks are plain data by their types; walking them on every action would cost more than the action.
  middleware: (defaults) =>
    defaults({ serializableCheck: false, immutableCheck: false }).prepend(joining).concat(api.middleware),
  // What is typed into a field of the kit or the rack is in the cache of what was read: told a moment later, the field would be
  // put back to what it held, and the caret to its end.
  enhancers: (defaults) => defaults({ autoBatch: false }),
});

/** Lets a middleware join that the first screens do without. */
export function joinStore(middleware: Middleware): void {
  beside = middleware(store);
}

// Coming back to a tab reads again what other tabs may have changed.
setupListeners(store.dispatch);

/** The state as the job screens see it: they are loaded after the open job has joined. */
export type RootState = ReturnType<typeof rootReducer> & { job: JobState };
export type AppDispatch = typeof store.dispatch;
export const useAppDispatch: () => AppDispatch = useDispatch;
export const useAppSelector: TypedUseSelectorHook<RootState> = useSelector;
/** The open job, for what happens beside the screens. */
export const openJobState = (): JobState => (store.getState() as RootState).job;

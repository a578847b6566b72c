import { jobActions, jobReducer } from './job';
import { startPlanningGlue } from './gluing';
import { startPredicting } from './predicting';
import { rootReducer, store } from './store';
import { startStoring } from './storing';

/* Importing this module makes the store ready for open jobs, once. */
rootReducer.inject({ reducerPath: 'job', reducer: jobReducer });
// The state of a reducer that joined late appears with the next action; screens must find it at once.
store.dispatch(jobActions.closed());
startPredicting();
startPlanningGlue();
startStoring();

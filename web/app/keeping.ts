import { api } from './api';
import { startListening } from './events';
import { firstSent, onOutbox } from './outbox';
import { meetServer, onReturn } from './reach';
import { store } from './store';

/*
 * What holds on every screen: a job that was stored is read anew where it is listed, and a server that is back is asked
 * again for all that could not be read.
 */
onOutbox('job', {
  stored: ({ subject }) =>
    void store.dispatch(api.util.invalidateTags(['Jobs', { type: 'Job', id: subject }])),
});
onReturn(
  () => void store.dispatch(api.util.invalidateTags(['Jobs', 'Job', 'Revisions', 'Kit', 'Boards', 'Timers'])),
);
startListening();
void firstSent();
void meetServer();

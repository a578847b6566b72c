import { unsent } from './outbox';
import { GO_ON } from '../workers/kept';

/** Where the service worker lies: at the root, since it serves every page. */
const ADDRESS = '/service-worker.js';

/** Nobody looks at the page and nothing waits to be stored: a new build may take over. */
const isQuiet = () => document.visibilityState === 'hidden' && unsent().length === 0;

/**
 * Keeps the application in this browser, so that it opens without the server. Only on a secure page; the development server
 * has no worker. A new build waits until the page is out of sight with nothing unsent, and is then taken whole. Says whether this
 * page has all its parts at hand here already.
 */
export async function keepApplication(): Promise<boolean> {
  if (!('serviceWorker' in navigator) || import.meta.env.DEV) return false;
  await navigator.serviceWorker.register(ADDRESS, { type: 'classic', updateViaCache: 'none' });
  let asked = false;
  document.addEventListener('visibilitychange', async () => {
    const waiting = (await navigator.serviceWorker.getRegistration())?.waiting;
    if (!waiting || !isQuiet()) return;
    asked = true;
    waiting.postMessage(GO_ON);
  });
  navigator.serviceWorker.addEventListener('controllerchange', () => {
    if (asked) location.reload();
  });
  return navigator.serviceWorker.controller !== null;
}

/** What some browsers say of the way to the network. */
interface Connection {
  saveData?: boolean;
}

/** Whether the browser was asked to load no more than is looked at. */
export const isSavingData = (): boolean =>
  (navigator as { connection?: Connection }).connection?.saveData === true;

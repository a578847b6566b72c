import type { ComponentType } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { createBrowserRouter, Link, Navigate, RouterProvider } from 'react-router';
import { type Address, ADDRESSES } from './app/addresses';
import { store } from './app/store';
import './app/theme.css';
import { Broken } from './screens/frame/Broken';
import { Shell } from './screens/frame/Shell';

/** Every screen by its address; each is loaded when it is first opened, or a little before. */
const SCREENS: Record<Address, () => Promise<ComponentType>> = {
  jobs: async () => (await import('./screens/Jobs')).Jobs,
  'jobs/new': async () => (await import('./screens/NewJob')).NewJob,
  patterns: async () => (await import('./screens/Patterns')).Patterns,
  'jobs/:id': async () => (await import('./screens/job/JobScreen')).JobScreen,
  'jobs/:id/wood': async () => (await import('./screens/wood/WoodScreen')).WoodScreen,
  'jobs/:id/wood/sheet': async () => (await import('./screens/wood/SetUpSheet')).SetUpSheet,
  'jobs/:id/sheets': async () => (await import('./screens/job/Sheets')).Sheets,
  'jobs/:id/look': async () => (await import('./screens/look/LookScreen')).LookScreen,
  'jobs/:id/rehearse/:step': async () => (await import('./screens/job/glue/RehearseScreen')).RehearseScreen,
  calendar: async () => (await import('./screens/calendar/Calendar')).Calendar,
  rack: async () => (await import('./screens/rack/Rack')).Rack,
  kit: async () => (await import('./screens/kit/Kit')).Kit,
  tables: async () => (await import('./screens/Tables')).Tables,
};

const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    HydrateFallback: () => null,
    children: [
      { index: true, element: <Navigate to="/jobs" replace /> },
      ...(Object.keys(SCREENS) as Address[]).map((path) => ({
        path,
        lazy: async () => ({ Component: await SCREENS[path]() }),
        handle: { title: ADDRESSES[path] },
      })),
      {
        path: '*',
        handle: { title: 'Nothing here' },
        element: (
          <main className="p-8">
            <h1 className="text-[20px] font-semibold">There is nothing at this address.</h1>
            <Link className="text-chalk underline" to="/jobs">
              All jobs
            </Link>
          </main>
        ),
      },
    ],
  },
]);

const root = document.getElementById('root');
if (!root) throw new Error('The page has no root element.');
createRoot(root).render(
  <Provider store={store}>
    <RouterProvider router={router} />
  </Provider>,
);

/** Pause before the other screens are fetched, ms: the first one comes first. */
const PREPARE_MS = 5000;
// With the server away later on, every screen can still be opened.
setTimeout(async () => {
  for (const load of Object.values(SCREENS)) await load().catch(() => undefined);
}, PREPARE_MS);

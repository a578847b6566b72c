import './app/theme.css';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { Shell } from './app/Shell';
import { store } from './app/store';
import { Broken } from './app/Broken';

const router = createBrowserRouter([
  {
    element: <Shell />,
    errorElement: <Broken />,
    HydrateFallback: () => null,
    children: [
      { index: true, element: <Navigate to="/jobs" replace /> },
      { path: 'jobs', lazy: async () => ({ Component: (await import('./screens/Jobs')).Jobs }) },
      { path: 'jobs/new', lazy: async () => ({ Component: (await import('./screens/NewJob')).NewJob }) },
      { path: 'patterns', lazy: async () => ({ Component: (await import('./screens/Patterns')).Patterns }) },
      {
        path: 'jobs/:id',
        lazy: async () => ({ Component: (await import('./screens/job/JobScreen')).JobScreen }),
      },
      {
        path: 'jobs/:id/wood',
        lazy: async () => ({ Component: (await import('./screens/wood/WoodScreen')).WoodScreen }),
      },
      {
        path: 'jobs/:id/wood/sheet',
        lazy: async () => ({ Component: (await import('./screens/wood/SetUpSheet')).SetUpSheet }),
      },
      {
        path: 'jobs/:id/assembly',
        lazy: async () => ({ Component: (await import('./screens/job/AssemblySheets')).AssemblySheets }),
      },
      {
        path: 'jobs/:id/look',
        lazy: async () => ({ Component: (await import('./screens/look/LookScreen')).LookScreen }),
      },
      {
        path: 'jobs/:id/rehearse/:step',
        lazy: async () => ({
          Component: (await import('./screens/job/glue/RehearseScreen')).RehearseScreen,
        }),
      },
      {
        path: 'calendar',
        lazy: async () => ({ Component: (await import('./screens/calendar/Calendar')).Calendar }),
      },
      { path: 'rack', lazy: async () => ({ Component: (await import('./screens/rack/Rack')).Rack }) },
      { path: 'kit', lazy: async () => ({ Component: (await import('./screens/kit/Kit')).Kit }) },
      { path: 'tables', lazy: async () => ({ Component: (await import('./screens/Tables')).Tables }) },
      { path: '*', element: <p className="p-8">There is nothing at this address.</p> },
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

import type { ComponentType, LazyExoticComponent } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { BrowserRouter, Link, Route, Routes } from 'react-router';
import { type Address, ADDRESSES } from './app/addresses';
import { store } from './app/store';
import './app/theme.css';
import { fetchTheRest, fetched } from './parts/lazily';
import { isSavingData, keepApplication } from './app/keep-application';
import { Screen } from './parts/layout';
import { Broken } from './screens/frame/Broken';
import { Home } from './screens/frame/Home';
import { Shell } from './screens/frame/Shell';

/** Every screen by its address; each is loaded when it is first opened, or a little before. */
const SCREENS: Record<Address, LazyExoticComponent<ComponentType>> = {
  start: fetched(() => import('./screens/start/Start'), 'Start'),
  'start/shop': fetched(() => import('./screens/start/SetUpShop'), 'SetUpShop'),
  shops: fetched(() => import('./screens/start/Shops'), 'Shops'),
  today: fetched(() => import('./screens/today/Today'), 'Today'),
  jobs: fetched(() => import('./screens/jobs/Jobs'), 'Jobs'),
  'jobs/new': fetched(() => import('./screens/NewJob'), 'NewJob'),
  patterns: fetched(() => import('./screens/Patterns'), 'Patterns'),
  'jobs/:id': fetched(() => import('./screens/job/JobScreen'), 'JobScreen'),
  'jobs/:id/wood': fetched(() => import('./screens/wood/WoodScreen'), 'WoodScreen'),
  'jobs/:id/wood/sheet': fetched(() => import('./screens/wood/SetUpSheet'), 'SetUpSheet'),
  'jobs/:id/sheets': fetched(() => import('./screens/job/Sheets'), 'Sheets'),
  'jobs/:id/look': fetched(() => import('./screens/look/LookScreen'), 'LookScreen'),
  'jobs/:id/cost': fetched(() => import('./screens/job/CostScreen'), 'CostScreen'),
  'jobs/:id/record': fetched(() => import('./screens/job/RecordScreen'), 'RecordScreen'),
  'jobs/:id/rehearse/:step': fetched(() => import('./screens/job/glue/RehearseScreen'), 'RehearseScreen'),
  'jobs/:id/bench': fetched(() => import('./screens/atbench/AtBench'), 'AtBench'),
  calendar: fetched(() => import('./screens/calendar/Calendar'), 'Calendar'),
  rack: fetched(() => import('./screens/rack/Rack'), 'Rack'),
  kit: fetched(() => import('./screens/kit/Kit'), 'Kit'),
  gauges: fetched(() => import('./screens/Gauges'), 'Gauges'),
  log: fetched(() => import('./screens/log/LogScreen'), 'LogScreen'),
  tables: fetched(() => import('./screens/Tables'), 'Tables'),
};

function Nowhere() {
  return (
    <Screen>
      <h1 className="text-[20px] font-semibold">There is nothing at this address.</h1>
      <Link className="press text-chalk underline" to="/jobs">
        All jobs
      </Link>
    </Screen>
  );
}

const root = document.getElementById('root');
if (!root) throw new Error('The page has no root element.');
createRoot(root).render(
  <Provider store={store}>
    <BrowserRouter>
      <Broken>
        <Routes>
          <Route element={<Shell />}>
            <Route index element={<Home />} />
            {(Object.keys(ADDRESSES) as Address[]).map((path) => {
              const Shown = SCREENS[path];
              return <Route key={path} path={path} element={<Shown />} />;
            })}
            <Route path="*" element={<Nowhere />} />
          </Route>
        </Routes>
      </Broken>
    </BrowserRouter>
  </Provider>,
);

/** Pause before this browser is asked to keep the application, ms: the first screen comes first. */
const PREPARE_MS = 5000;
setTimeout(() => {
  keepApplication()
    // Without it Junta works as ever: only not without the server.
    .catch((problem: unknown) => console.error('Not kept for use without the server:', problem))
    .then((kept) => (kept || isSavingData() ? undefined : fetchTheRest()));
}, PREPARE_MS);

import { matchRoutes } from 'react-router';

/**
 * Every screen by its address, with what its window is called; screens of a job are called by the job, which they read
 * themselves. Routes, titles and the browser tests are made from this list.
 */
export const ADDRESSES = {
  start: 'Welcome',
  'start/shop': 'Set up your shop',
  shops: 'Shops',
  today: 'Today',
  jobs: 'Jobs',
  'jobs/new': 'New job',
  patterns: 'Patterns',
  'jobs/:id': undefined,
  'jobs/:id/wood': undefined,
  'jobs/:id/wood/sheet': undefined,
  'jobs/:id/sheets': undefined,
  'jobs/:id/look': undefined,
  'jobs/:id/cost': undefined,
  'jobs/:id/record': undefined,
  'jobs/:id/rehearse/:step': undefined,
  'jobs/:id/bench': undefined,
  calendar: 'Calendar',
  rack: 'Rack',
  kit: 'Kit',
  gauges: 'Simulated gauges',
  log: 'Log',
  tables: 'Tables',
} as const satisfies Record<string, string | undefined>;

export type Address = keyof typeof ADDRESSES;

const SCREENS = (Object.keys(ADDRESSES) as Address[]).map((id) => ({ id, path: `/${id}` }));

/** The address that a path belongs to, as the router takes it: of two that fit, the one with more words of its own. */
export const addressOf = (pathname: string): Address | undefined =>
  matchRoutes(SCREENS, pathname)?.[0]?.route.id as Address | undefined;

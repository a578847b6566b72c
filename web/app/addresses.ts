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

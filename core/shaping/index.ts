export * from './body';
export * from './clearance';
export * from './report';

export * from './body';
export * from './clearance';
export * from './report';
export * from './guide';
export * from './method';

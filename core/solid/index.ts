export * from './blank';
export * from './cell';
export * from './contacts';
export * from './crossgrain';
export * from './cut';
export * from './ledger';
export * from './rigid';
export * from './vec';

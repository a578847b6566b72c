export * from './aims';
export * from './counts';
export * from './fit';
export * from './free';
export * from './machines';
export * from './onhand';
export * from './patterns/parts';
export * from './patterns';

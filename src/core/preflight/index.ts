export * from './finding';
export * from './preflight';
export * from './waved';

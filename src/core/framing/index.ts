export * from './path';
export * from './placement';
export * from './shape';

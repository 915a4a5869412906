export * from './already-sent';
export * from './finding';
export * from './preflight';
export * from './remedy';
export { momentWords } from './said';
export { overlaps } from './spans';
export * from './waved';

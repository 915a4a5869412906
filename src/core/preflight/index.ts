export * from './finding';
export * from './preflight';
export { momentWords } from './said';
export { overlaps } from './spans';
export * from './waved';

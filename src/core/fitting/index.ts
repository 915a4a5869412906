export * from './fit';
export * from './fit-tags';
export { wholeTitle } from './fit-title';
export * from './fold';
export * from './names';
export * from './search-findings';
export * from './shapes';

export * from './fit';
export * from './fold';
export * from './names';
export * from './search-findings';

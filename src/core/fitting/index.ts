export * from './fit';
export * from './search-findings';

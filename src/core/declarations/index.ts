export * from './countries';
export * from './country-codes';
export * from './declarations';
export * from './findings';
export * from './for-children';
export * from './gtin';

export * from './allowance';
export * from './circuit';
export * from './follows';
export * from './looks';
export * from './retry-after';

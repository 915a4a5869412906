export * from './groups';

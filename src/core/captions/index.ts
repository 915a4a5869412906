export * from './caption';
export * from './findings';
export * from './read';
export * from './write';

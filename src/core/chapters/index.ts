export * from './chapters';
export * from './repairs';
export * from './rules';

export * from './chapters';
export * from './choice';
export * from './repair-offers';
export * from './repairs';
export * from './rules';
export * from './time-line';

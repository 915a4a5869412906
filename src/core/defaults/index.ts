export * from './layers';
export * from './series';
export * from './values';

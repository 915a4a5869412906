export * from './agreement';
export * from './in-words';
export * from './moment';
export * from './opening';
export * from './rhythm';
export * from './said';
export * from './site-dates';

export * from './limits';
export * from './links';
export * from './tags';
export * from './title-from-file';

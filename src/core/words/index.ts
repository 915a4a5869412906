export * from './limits';
export * from './tags';
export * from './title-from-file';

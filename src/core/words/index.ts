export * from './limits';
export * from './links';
export * from './tags';
export * from './template';
export * from './title-from-file';

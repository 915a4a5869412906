export * from './limits';
export * from './links';
export * from './tag-suggestions';
export * from './tag-variants';
export * from './tags';
export * from './template';
export * from './title-from-file';
export * from './word-shapes';

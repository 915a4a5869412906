export * from './board';
export * from './changed';
export * from './end';
export * from './life';
export * from './patience';
export * from './proof';
export * from './readiness';
export * from './words-for-site';

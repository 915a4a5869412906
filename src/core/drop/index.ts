export * from './board';
export * from './life';
export * from './proof';
export * from './readiness';
export * from './words-for-site';

export * from './acceptance';
export * from './facts';
export * from './measures';
export * from './site-rules';
export * from './transfer-rate';

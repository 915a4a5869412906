export * from './acceptance';
export * from './facts';
export * from './site-rules';
export * from './transfer-rate';

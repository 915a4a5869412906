export * from './acceptance';
export * from './facts';
export * from './file-samples';
export * from './measures';
export * from './site-rules';
export * from './transfer-rate';

export * from './acceptance';
export * from './chunks';
export * from './facts';
export * from './file-samples';
export * from './measures';
export * from './media-type';
export * from './site-rules';
export * from './transfer-rate';

export * from './fraction';
export * from './parse-rate';
export * from './rate';
export * from './timecode';
export * from './viewer-time';

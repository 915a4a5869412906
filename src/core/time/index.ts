export * from './fraction';
export * from './parse-rate';
export * from './rate';
export * from './time-line-code';
export * from './timecode';
export * from './viewer-time';

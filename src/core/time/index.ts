export * from './fraction';
export * from './rate';
export * from './timecode';
export * from './viewer-time';

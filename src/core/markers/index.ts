export * from './edl';
export * from './marker';
export * from './read';
export * from './webvtt';

export * from './clock-text';
export * from './limits';

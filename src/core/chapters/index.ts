export * from './chapters';

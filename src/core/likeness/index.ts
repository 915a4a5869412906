export * from './likeness';

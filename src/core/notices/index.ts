export * from './notices';

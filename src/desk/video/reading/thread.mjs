import { register } from 'tsx/esm/api';

// A thread begins without what its process was started with: this lets it read the sources.
register();
await import('./thread.ts');

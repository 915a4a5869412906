import { inject } from 'vitest';

// Before anything of the application is loaded, which takes its settings once.
Object.assign(process.env, inject('machines')[Number(process.env.VITEST_POOL_ID) - 1]);

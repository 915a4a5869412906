import { beforeAll } from 'vitest';
import { database } from '@/store/database';
import { emptyDatabase } from './fresh-database';

// What another file has left would be looked at again and again, and found where it is not meant.
beforeAll(() => emptyDatabase(database()));

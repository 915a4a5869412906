import { v7 } from 'uuid';

/** A new UUIDv7: ids sort by the time at which they were made. */
export function newId(): string {
  return v7();
}

import { AsyncLocalStorage } from 'node:async_hooks';

const windows = new AsyncLocalStorage<string>();

/** Does something as a window of somebody's browser, or as one call of the command line: changes of two never become one. */
export function inWindow<T>(id: string | undefined, work: () => Promise<T>): Promise<T> {
  return id === undefined ? work() : windows.run(id, work);
}

/** The window that what is done now was asked for in. */
export const windowNow = (): string | undefined => windows.getStore();

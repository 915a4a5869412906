import { AsyncLocalStorage } from 'node:async_hooks';
import type { Actor } from '@/core/actor';
import { actAs } from '@/store/actor';

const windows = new AsyncLocalStorage<string>();

/** Does something as a window of somebody's browser, or as one call of the command line: changes of two never become one. */
export function inWindow<T>(id: string | undefined, work: () => Promise<T>): Promise<T> {
  return id === undefined ? work() : windows.run(id, work);
}

/** The window that what is done now was asked for in. */
export const windowNow = (): string | undefined => windows.getStore();

/** What the changes of an act on many are made in, so that undo knows them again. */
export const windowOfAct = (id: string): string => `many-${id}`;

/** Whether what is done now is done by an act on many. */
export const isInAct = (): boolean => windowNow()?.startsWith(windowOfAct('')) ?? false;

/** Does what somebody asks for in a window: whatever is written down of it is theirs. */
export const askedBy = <T>(by: Actor, window: string | undefined, work: () => Promise<T>): Promise<T> =>
  actAs(by, () => inWindow(window, work));

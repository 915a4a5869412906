import { useSyncExternalStore } from 'react';

const never = () => () => {};

/** Whether the page takes what is typed by now: what stands there before, the server has drawn, and nobody would hear of it. */
export const useHydrated = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );

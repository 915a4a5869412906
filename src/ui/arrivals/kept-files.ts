import { createStore, del, entries, set } from 'idb-keyval';

/**
 * What a browser lets a page keep of a file that was dropped on it, so that it can be opened again after a reload or a restart
 * (File System Access, WICG). Browsers that have no such thing keep nothing, and a person picks the file again.
 */
type Handle = FileSystemFileHandle & {
  queryPermission?(asked: { mode: 'read' }): Promise<PermissionState>;
  requestPermission?(asked: { mode: 'read' }): Promise<PermissionState>;
};

/** A file whose transfer broke off with its page. */
export interface KeptFile {
  cutId: string;
  name: string;
  /** Whether it can be opened without asking the person at the page. */
  isOpen: boolean;
  /** Opens it, asking for leave where that is needed; undefined where it was refused, or the file is gone. */
  open(): Promise<File | undefined>;
}

let store: ReturnType<typeof createStore> | undefined;
const files = () => {
  store ??= createStore('kettle-arrivals', 'files');
  return store;
};

/** Keeps a file that is on its way, where it came with a handle. */
export async function keepFile(cutId: string, file: File): Promise<void> {
  const { handle } = file as File & { handle?: FileSystemFileHandle };
  if (handle) await set(cutId, handle, files()).catch(() => undefined);
}

/** Forgets a file that has come, or never will. */
export async function forgetFile(cutId: string): Promise<void> {
  await del(cutId, files()).catch(() => undefined);
}

/** The files that were on their way when their page went. */
export async function keptFiles(): Promise<KeptFile[]> {
  const kept = await entries<string, Handle>(files()).catch(() => []);
  return Promise.all(
    kept.map(async ([cutId, handle]) => ({
      cutId,
      name: handle.name,
      isOpen: (await handle.queryPermission?.({ mode: 'read' })) === 'granted',
      async open() {
        const leave = await handle.requestPermission?.({ mode: 'read' }).catch(() => 'denied' as const);
        if (leave !== undefined && leave !== 'granted') return undefined;
        // What is opened anew keeps its handle, so that it can be kept once more.
        const file = await handle.getFile().catch(() => undefined);
        return file && Object.assign(file, { handle });
      },
    })),
  );
}

/**
 * Holds a transfer for this page until the function returned is called: two windows never carry one file. False where another
 * has it (Web Locks API, W3C).
 */
export async function holdTransfer(cutId: string): Promise<(() => void) | false> {
  return new Promise((resolve) => {
    void navigator.locks.request(`kettle arrival ${cutId}`, { ifAvailable: true }, async (lock) => {
      if (!lock) return resolve(false);
      await new Promise<void>((letGo) => resolve(letGo));
    });
  });
}

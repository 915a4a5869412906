import path from 'node:path';
import { Worker } from 'node:worker_threads';

/** More than this that has come and is not digested yet, and the digest is given up: the file is read for it afterwards. */
const MOST_BACKLOG_BYTES = 32 * 1024 * 1024;

interface Message {
  id: number;
  taken?: number;
  digest?: string;
}

let thread: Worker | undefined;
let digestsMade = 0;
const listeners = new Map<number, (message: Message) => void>();

/** The thread in which digests are made, beside the one that takes bytes in. It keeps no process alive. */
function hashThread(): Worker {
  if (thread) return thread;
  // Read from where the sources stand: a bundle has no file of it.
  const made = new Worker(path.join(/* turbopackIgnore: true */ process.cwd(), 'src/store/files/hash-thread.mjs'), {
    execArgv: [],
  });
  made.unref();
  made.on('message', (message: Message) => listeners.get(message.id)?.(message));
  const gone = () => {
    // Whoever waits is answered: there is no digest.
    for (const [id, hear] of [...listeners]) hear({ id });
    if (thread === made) thread = undefined;
  };
  made.on('error', gone);
  made.on('exit', gone);
  thread = made;
  return made;
}

/** The SHA-256 of bytes that come one after the other, made in a thread of its own while they come. */
export class RunningDigest {
  private readonly id: number;
  private backlog = 0;
  private isLost = false;
  private answer: ((digest: string | undefined) => void) | undefined;

  constructor() {
    digestsMade += 1;
    this.id = digestsMade;
    listeners.set(this.id, ({ taken, digest }) => {
      if (taken !== undefined) this.backlog -= taken;
      else this.end(digest);
    });
  }

  update(chunk: Uint8Array): void {
    if (this.isLost) return;
    this.backlog += chunk.length;
    if (this.backlog > MOST_BACKLOG_BYTES) this.drop();
    else hashThread().postMessage({ id: this.id, chunk });
  }

  /** Gives it up. */
  drop(): void {
    if (this.isLost) return;
    this.isLost = true;
    hashThread().postMessage({ id: this.id });
  }

  /** The digest in hexadecimal, of all that came; undefined where it was given up. */
  async digest(): Promise<string | undefined> {
    if (this.isLost) return undefined;
    return new Promise((resolve) => {
      this.answer = resolve;
      hashThread().postMessage({ id: this.id, ends: true });
    });
  }

  private end(digest: string | undefined): void {
    listeners.delete(this.id);
    this.isLost = true;
    this.answer?.(digest);
  }
}

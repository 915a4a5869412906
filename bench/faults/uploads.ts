import { createHash } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';

const CHUNK_BYTES = 96 * 1024;
const AGAIN_MILLISECONDS = 250;
/** A request that has no answer by then is made once more, as a browser's page does. */
const PATIENCE_MILLISECONDS = 15_000;
const TUS = { 'tus-resumable': '1.0.0' };

/** Transfers into Kettle Drop over a line that breaks. */
export interface Uploads {
  /** Brings a file in, for as long as it takes; the ids of its video and cut are returned. */
  bring(fileName: string, bytes: Buffer, until: AbortSignal): Promise<{ videoId: string; cutId: string }>;
  /** Breaks every request that is under way. */
  cut(): void;
}

/** An answer that has come whole. */
interface Answer {
  status: number;
  headers: Headers;
  text: string;
}

/** @param address that of the pages */
export function uploadsTo(address: string): Uploads {
  let line = new AbortController();

  const signal = () => AbortSignal.any([line.signal, AbortSignal.timeout(PATIENCE_MILLISECONDS)]);

  /** Asks until there is an answer that another try would not change. */
  async function ask(path: string, init: RequestInit, until: AbortSignal): Promise<Answer> {
    for (;;) {
      until.throwIfAborted();
      try {
        const answer = await fetch(`${address}${path}`, { ...init, signal: signal() });
        const text = await answer.text();
        const { status, headers } = answer;
        if (status < 500 && ![408, 409, 423, 429].includes(status)) return { status, headers, text };
      } catch {
        // The line broke, or nobody was there.
      }
      await pause(AGAIN_MILLISECONDS);
    }
  }

  return {
    cut() {
      line.abort();
      line = new AbortController();
    },
    async bring(fileName, bytes, until) {
      const fingerprint = createHash('sha256').update(fileName).digest('hex');
      const json = JSON.stringify({ files: [{ fileName, size: bytes.length, fingerprint }] });
      const headers = { 'content-type': 'application/json' };
      const announced = await ask('/api/videos', { method: 'POST', headers, body: json }, until);
      const { files } = JSON.parse(announced.text) as { files: { cutId: string; videoId: string }[] };
      const [made] = files;
      if (!made?.cutId) throw new Error(`${fileName} was not taken: ${JSON.stringify(files)}`);
      const { cutId, videoId } = made;
      const at = `/api/arrivals/${cutId}`;
      for (;;) {
        const head = await ask(at, { method: 'HEAD', headers: TUS }, until);
        if (head.status === 404 || head.status === 410) {
          const metadata = `cutId ${Buffer.from(cutId).toString('base64')}`;
          const create = { ...TUS, 'upload-length': String(bytes.length), 'upload-metadata': metadata };
          await ask('/api/arrivals', { method: 'POST', headers: create }, until);
          continue;
        }
        const offset = Number(head.headers.get('upload-offset') ?? 0);
        if (offset >= bytes.length) return { cutId, videoId };
        const patch = { ...TUS, 'upload-offset': String(offset), 'content-type': 'application/offset+octet-stream' };
        const body = new Uint8Array(bytes.subarray(offset, offset + CHUNK_BYTES));
        await fetch(`${address}${at}`, { method: 'PATCH', headers: patch, body, signal: signal() }).catch(
          () => undefined,
        );
      }
    },
  };
}

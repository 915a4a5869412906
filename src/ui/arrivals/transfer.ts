import type { Upload as TusUpload } from 'tus-js-client';
import { chunkAfterBreak, chunkAfterSuccess, FIRST_CHUNK_BYTES } from '@/core/delivery';

/** Pauses between tries while the line is gone. A transfer that has moved on begins again with the first. */
const RETRY_MILLISECONDS = [0, 500, 1000, 2000, 3000, ...Array.from({ length: 20_000 }, () => 5000)];

/** Answers that another try cannot change. */
const isFinal = (status: number) =>
  (status >= 400 && status < 500 && ![408, 409, 423, 425, 429].includes(status)) || status === 507;

interface TransferTold {
  onProgress: (bytes: number) => void;
  /** The line is gone; it goes on by itself. */
  onWait: () => void;
  onEnd: () => void;
  /** @param said what Kettle Drop says against it */
  onRefused: (said: string) => void;
}

const LOAD_AGAIN_MILLISECONDS = 2000;

/** Loads what carries files, so that it is there when one is brought. */
export const readyToCarry = () => import('tus-js-client');

/** The tus client, loaded by whoever brings a file; where the line is gone, once it is back. */
async function tusClient(onWait: () => void): Promise<typeof TusUpload> {
  for (;;) {
    try {
      return (await readyToCarry()).Upload;
    } catch {
      onWait();
      await new Promise((resolve) => setTimeout(resolve, LOAD_AGAIN_MILLISECONDS));
    }
  }
}

/** Carries one file to its cut by tus 1.0, for as long as it takes. */
export async function startTransfer(file: File, cutId: string, goesOn: boolean, told: TransferTold): Promise<void> {
  const Upload = await tusClient(told.onWait);
  let begun = performance.now();
  const upload = new Upload(file, {
    endpoint: '/api/arrivals',
    uploadUrl: goesOn ? `/api/arrivals/${cutId}` : undefined,
    metadata: { cutId },
    chunkSize: FIRST_CHUNK_BYTES,
    retryDelays: RETRY_MILLISECONDS,
    storeFingerprintForResuming: false,
    onProgress: told.onProgress,
    onChunkComplete(bytes) {
      const now = performance.now();
      upload.options.chunkSize = chunkAfterSuccess(bytes, (now - begun) / 1000);
      begun = now;
    },
    onShouldRetry(error) {
      begun = performance.now();
      upload.options.chunkSize = chunkAfterBreak(upload.options.chunkSize ?? FIRST_CHUNK_BYTES);
      if (isFinal(error.originalResponse?.getStatus() ?? 0)) return false;
      told.onWait();
      return true;
    },
    onSuccess: told.onEnd,
    onError(error) {
      told.onRefused(('originalResponse' in error && error.originalResponse?.getBody()) || '');
    },
  });
  upload.start();
}

/** How many bytes of a cut have come, as the tus server tells it; undefined where nothing has begun. */
export async function bytesHere(cutId: string): Promise<number | undefined> {
  const answer = await fetch(`/api/arrivals/${cutId}`, { method: 'HEAD', headers: { 'tus-resumable': '1.0.0' } });
  const offset = answer.headers.get('upload-offset');
  return answer.ok && offset !== null ? Number(offset) : undefined;
}

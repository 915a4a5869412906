import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { MarkerFileError } from '@/core/markers';
import { log } from '../../log';
import { type CaptionsAsked, type CaptionsRead, captionsIn } from './captions-in';
import { type MarkersAsked, type MarkersRead, markersIn } from './markers-in';

/** What is read at once, where the asking is: below this it takes some hundred milliseconds at the most. */
const SMALL_BYTES = 256 * 1024;
const LONGEST_MILLISECONDS = 60_000;
const MOST_MEGABYTES = 768;

/** What a thread is asked, and what it answers. */
export type Asked = { of: 'markers'; asked: MarkersAsked } | { of: 'captions'; asked: CaptionsAsked };
export type Answered = { read: unknown } | { wrong: { what: string; line: number } };

/** Reads a marker file; a large one in a thread of its own, within bounds. @throws MarkerFileError */
export async function readMarkers(asked: MarkersAsked): Promise<MarkersRead> {
  if (asked.bytes.length <= SMALL_BYTES) return markersIn(asked);
  return (await apart({ of: 'markers', asked })) as MarkersRead;
}

/** Reads a caption file; a large one in a thread of its own, within bounds. @throws MarkerFileError */
export async function readCaptionFile(asked: CaptionsAsked): Promise<CaptionsRead> {
  if (asked.bytes.length <= SMALL_BYTES) return captionsIn(asked);
  return (await apart({ of: 'captions', asked })) as CaptionsRead;
}

async function apart(asked: Asked): Promise<unknown> {
  // The thread is read from where the sources stand: a bundle has no file of it.
  const file = path.join(/* turbopackIgnore: true */ process.cwd(), 'src/desk/video/reading/thread.mjs');
  const thread = new Worker(file, {
    workerData: asked,
    execArgv: [],
    resourceLimits: { maxOldGenerationSizeMb: MOST_MEGABYTES },
  });
  let timer: ReturnType<typeof setTimeout> | undefined;
  try {
    const answered = await new Promise<Answered>((resolve, reject) => {
      timer = setTimeout(() => reject(new Error('took too long')), LONGEST_MILLISECONDS);
      thread.once('message', resolve);
      thread.once('error', reject);
      thread.once('exit', (code) => reject(new Error(`ended with ${code}`)));
    });
    if ('wrong' in answered) throw new MarkerFileError(answered.wrong.what, answered.wrong.line);
    return answered.read;
  } catch (error) {
    if (error instanceof MarkerFileError) throw error;
    log.warn({ why: (error as Error).message }, 'a file could not be read within its bounds');
    throw new MarkerFileError('it is too much to read at once; use a part of it', 0);
  } finally {
    clearTimeout(timer);
    void thread.terminate();
  }
}

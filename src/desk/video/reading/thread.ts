import { parentPort, workerData } from 'node:worker_threads';
import { MarkerFileError } from '@/core/markers';
import type { Answered, Asked } from './apart';
import { captionsIn } from './captions-in';
import { markersIn } from './markers-in';

/** Reads one large file and answers what is in it, or what is wrong with it. */
function answer(): Answered {
  const { of, asked } = workerData as Asked;
  try {
    return { read: of === 'markers' ? markersIn(asked) : captionsIn(asked) };
  } catch (error) {
    if (!(error instanceof MarkerFileError)) throw error;
    return { wrong: { what: error.what, line: error.line } };
  }
}

parentPort?.postMessage(answer());

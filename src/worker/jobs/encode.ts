import { createHash } from 'node:crypto';
import { rm } from 'node:fs/promises';
import path from 'node:path';
import { pipeline } from 'node:stream/promises';
import { binarySize } from '@/core/delivery';
import { type Recipe, sizeOfRecipe } from '@/core/renditions';
import { FILE_GONE } from '@/desk/cut-file';
import { log } from '@/desk/log';
import { UnusableCut } from '@/media/facts';
import { ProgramError } from '@/media/program';
import { makeRendition } from '@/media/rendition/make-rendition';
import { type Database, database } from '@/store/database';
import { hastenPacking } from '@/store/drop/claims';
import { files } from '@/store/files/folder';
import { emptyMakingFolder } from '@/store/files/making';
import { endRendition, renditionById } from '@/store/files/renditions';
import { jobsOf } from '@/store/queue/jobs';
import { cutById } from '@/store/record/cuts';
import { soundsById } from '@/store/record/sounds';
import { hardware } from '../hardware';
import { countOnHold, giveTurnBack, takeTurn } from './encode-turns';
import type { JobContext, JobWork } from './job-work';
import { timeLeft } from './time-left';

/** So much stays free for the database and for files that come in. */
const KEPT_FREE_BYTES = 1024 ** 3;
const LOOKS_MILLISECONDS = 700;

/** There is no room for a file; others may go, and it is tried again later. */
class NoRoom extends Error {
  readonly code = 'ENOSPC';
}

/** Makes the file of one rendition. */
export const encode: JobWork = {
  async run({ job, signal, tell }) {
    const rendition = await renditionById(database(), job.subject);
    const cut = rendition && (await cutById(database(), rendition.cutId));
    if (!rendition?.recipe || rendition.state === 'ready' || !cut?.facts) return {};
    const { id, recipe, fileKey } = rendition;
    const { facts, videoId } = cut;
    if (cut.goneAt) return { write: (trx) => fail(trx, id, videoId, lowerFirst(FILE_GONE)) };
    const { most } = sizeOfRecipe(recipe, facts);
    // A file that is written twice, once to put its index first, needs twice the room.
    if ((await files().free()) < most * 2 + KEPT_FREE_BYTES) {
      throw new NoRoom(`There is no room for a file of about ${binarySize(most)}; make room on the disk`);
    }
    const folder = await emptyMakingFolder(id);
    const held = heldBy(id, signal, tell);
    try {
      tell({ says: 'waits for its turn' });
      await held.turn();
      const since = performance.now();
      const left = timeLeft();
      const target = path.join(folder, `file.${recipe.container}`);
      const made = await makeRendition(files().localPath(cut.fileKey), facts, recipe, target, {
        signal,
        hardware: await hardware(),
        sounds: await soundsFor(recipe),
        onStart: held.onStart,
        onProgress: (fraction) =>
          held.isHeld() || tell({ says: 'making the file', fraction, secondsLeft: left(fraction) }),
      });
      const seconds = (performance.now() - since) / 1000 - held.seconds();
      const adopted = await files().adopt(fileKey, target);
      const digest = adopted.digest ?? (await digestOf(fileKey, signal));
      return {
        async write(trx) {
          await endRendition(trx, id, { size: made.size, digest, seconds, soundAround: made.soundAround });
          await hastenPacking(trx, videoId);
        },
      };
    } catch (error) {
      if (!(error instanceof ProgramError || error instanceof UnusableCut)) throw error;
      // The disk has become full meanwhile, which is not the file's fault.
      if (/No space left on device/.test(error.message)) throw new NoRoom('The disk is full; make room');
      log.error({ rendition: id, said: error.message.slice(-2000) }, 'a file could not be made');
      return { write: (trx) => fail(trx, id, videoId, plainTrouble(error)) };
    } finally {
      held.end();
      await rm(folder, { recursive: true, force: true });
    }
  },
  async setAside(trx, { subject }, trouble) {
    const rendition = await renditionById(trx, subject);
    const cut = rendition && (await cutById(trx, rendition.cutId));
    if (cut) await fail(trx, subject, cut.videoId, trouble);
  },
  async videoOf(db, { subject }) {
    const rendition = await renditionById(db, subject);
    return rendition && (await cutById(db, rendition.cutId))?.videoId;
  },
};

/** Paths of the sounds that a recipe puts in the place of others, by their ids. */
async function soundsFor({ swaps = [] }: Recipe): Promise<Map<string, string>> {
  const ids = swaps.map(({ sound }) => sound);
  const sounds = ids.length > 0 ? await soundsById(database(), ids) : [];
  return new Map(sounds.map(({ id, fileKey }) => [id, files().localPath(fileKey)]));
}

/** Why a file could not be made, as a colleague would say it; what the encoder said is in the log. */
function plainTrouble(error: ProgramError | UnusableCut): string {
  if (error instanceof UnusableCut) return 'what the encoder wrote cannot be played';
  if (/Invalid data|corrupt|came out with/i.test(error.said))
    return 'the file cannot be read to its end. Export it again';
  return 'the encoder stopped with an error; the log says what it was';
}

const lowerFirst = (text: string) => text.charAt(0).toLowerCase() + text.slice(1);

async function fail(trx: Database, id: string, videoId: string, trouble: string): Promise<void> {
  await endRendition(trx, id, { trouble });
  await hastenPacking(trx, videoId);
}

async function digestOf(key: string, signal: AbortSignal): Promise<string> {
  const hash = createHash('sha256');
  await pipeline(files().open(key), hash, { signal });
  return hash.digest('hex');
}

/** Holds the encoder while a person wants that, and lets others have its turn meanwhile. */
function heldBy(id: string, signal: AbortSignal, tell: JobContext['tell']) {
  let [program, held, hasTurn]: [{ hold(): void; goOn(): void } | undefined, boolean, boolean] = [
    undefined,
    false,
    false,
  ];
  let [heldSince, seconds] = [0, 0];
  const give = () => {
    if (hasTurn) giveTurnBack();
    hasTurn = false;
  };
  const take = async () => {
    await takeTurn(signal);
    hasTurn = true;
  };
  let [counted, ended] = [false, false];
  const count = (isOnHold: boolean) => {
    if (counted !== isOnHold) countOnHold(isOnHold);
    counted = isOnHold;
  };
  const look = async () => {
    const wanted = (await jobsOf(database(), 'encode', [id])).get(id)?.held ?? false;
    // Until it has begun there is nothing to hold; it is held as soon as it has.
    if (!program || ended) return;
    if (wanted && !held) {
      held = true;
      heldSince = performance.now();
      program?.hold();
      give();
      count(true);
    } else if (!wanted && held) {
      count(false);
      await take();
      if (ended) return give();
      seconds += (performance.now() - heldSince) / 1000;
      held = false;
      program?.goOn();
    }
    if (held) tell({ says: 'on hold' });
  };
  let looking = Promise.resolve();
  const clock = setInterval(() => {
    // One after the other: what waits for its turn is not looked at twice.
    looking = looking.then(look).catch(() => undefined);
  }, LOOKS_MILLISECONDS);
  return {
    turn: take,
    isHeld: () => held,
    seconds: () => seconds,
    onStart(started: { hold(): void; goOn(): void }) {
      program = started;
      // A second pass starts while it is held.
      if (held) started.hold();
    },
    end() {
      ended = true;
      clearInterval(clock);
      give();
      count(false);
    },
  };
}

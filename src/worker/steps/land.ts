import { pipeline } from 'node:stream';
import { binarySize, lineRate, PaceMeter } from '@/core/delivery';
import { STOP_WORDS } from '@/core/drop';
import { type Begun, SiteError } from '@/sites/contract';
import { noteChannelUsed, noteLine } from '@/store/channels';
import { database } from '@/store/database';
import { files } from '@/store/files/folder';
import { renditionById } from '@/store/renditions';
import { followLine } from '../line/line-share';
import { throttle } from '../line/throttle';
import { SnagFound, type Step } from './step';
import { giveWords } from './words';

const TELL_EVERY_MILLISECONDS = 500;
/** Longer than the steps in which buffers take bytes on a slow line, so that its rate does not look like nothing. */
const PACE_MILLISECONDS = 30_000;
/** A smaller file says more of the site's answers than of the line. */
const LEAST_TOLD_BYTES = 200_000;

/** Towards landed: every byte is at the site, and the words with them. */
export const land: Step = async (context) => {
  const { drop, channel, record, adapter, session, keep, signal } = context;
  const rendition = drop.renditionId ? await renditionById(database(), drop.renditionId) : undefined;
  if (!rendition || !record.cut) throw new SnagFound('file', 'The packed file is gone', 'Send the video again');
  const here = await files()
    .size(rendition.fileKey)
    .catch(() => undefined);
  if (here !== rendition.size) {
    const what = here === undefined ? 'The file is gone from the disk' : 'The file was changed after it was added';
    throw new SnagFound('file', what, 'Replace the file, then try again');
  }
  let line: Awaited<ReturnType<typeof followLine>> | undefined;
  const file = {
    fileName: fileNameFor(record.cut.fileName, rendition.recipe?.container ?? record.cut.facts?.container ?? 'mp4'),
    size: rendition.size,
    // One that ends early ends the other, too.
    open: (start: number, end?: number) =>
      pipeline(
        files().open(rendition.fileKey, start, end),
        throttle(() => line?.rate()),
        () => undefined,
      ),
  };

  const begin = async (): Promise<Begun> => {
    const key = `${drop.id}.${drop.round}`;
    await keep({ begunWith: { key, fileName: file.fileName, size: file.size } });
    const begun = await adapter.begin(session, channel.siteChannelId, key, file);
    await keep({ ...begun, waiting: undefined });
    return begun;
  };
  const isBegun = drop.siteVideoId && drop.link && drop.carry;
  let begun: Begun = isBegun
    ? { siteVideoId: drop.siteVideoId ?? '', link: drop.link ?? '', carry: drop.carry ?? {} }
    : await begin();

  line = await followLine(channel.id);
  const since = Date.now();
  const meter = new PaceMeter(PACE_MILLISECONDS);
  let [over, telling] = [drop.bytesSent, Promise.resolve()];
  const note = (bytes: number) => {
    over = bytes;
  };
  const tell = () => {
    meter.note(over, Date.now());
    const { bytesPerSecond, secondsLeft } = meter.pace(rendition.size);
    const rate = bytesPerSecond > 0 ? ` · ${lineRate(bytesPerSecond)}` : '';
    const says = `${Math.floor((over / rendition.size) * 100)} %${rate}`;
    const progress =
      over < rendition.size
        ? { says, fraction: over / rendition.size, bytesPerSecond, secondsLeft }
        : // The line's buffers have the rest; it is not there before the site says so.
          { says: 'all sent, the site is storing it', bytesPerSecond };
    const fields = { bytesSent: over, progress, waiting: undefined };
    // One at a time; the claim's own heartbeat tells where the drop has been taken away.
    telling = telling.then(() => keep(fields)).catch(() => undefined);
  };
  // By the clock and not by the bytes: on a slow line, these come in large steps.
  const clock = setInterval(tell, TELL_EVERY_MILLISECONDS);
  try {
    await adapter.carry(session, begun, file, note, signal);
  } catch (error) {
    if (!(error instanceof SiteError) || error.kind !== 'missing') throw error;
    // The site has forgotten the transfer: with the same key it makes room again, and nothing is there twice.
    begun = await begin();
    await adapter.carry(session, begun, file, note, signal);
  } finally {
    clearInterval(clock);
    line.end();
    // What went over since the last tick counts, too: a line that breaks often still gets on.
    tell();
    await telling;
  }
  const seconds = (Date.now() - since) / 1000;
  const carried = rendition.size - drop.bytesSent;
  if (carried > LEAST_TOLD_BYTES && seconds > 0) await noteLine(database(), channel.id, carried / seconds);
  await noteChannelUsed(database(), channel.id);
  await keep({ bytesSent: rendition.size, progress: { says: 'setting title, text and picture' } });
  await giveWords(context, begun.siteVideoId);
  return {
    move: 'landed',
    says: `${STOP_WORDS.landed}: ${binarySize(rendition.size)}`,
    fields: { bytesSent: rendition.size },
  };
};

/** The name under which the site gets the file: without folders or signs, with the ending of its container. */
function fileNameFor(name: string, container: string): string {
  const base = name
    .replace(/\.[A-Za-z0-9]{1,5}$/, '')
    .replace(/[^\p{L}\p{N} ._-]/gu, '_')
    .slice(0, 200);
  return `${base || 'video'}.${container}`;
}

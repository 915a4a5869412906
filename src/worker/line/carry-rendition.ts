import { pipeline } from 'node:stream';
import { lineRate, PaceMeter } from '@/core/delivery';
import { type Begun, type Session, type SiteAdapter, SiteError } from '@/sites/contract';
import { database } from '@/store/database';
import type { DropFields } from '@/store/drop/rows';
import type { Drop } from '@/store/drop/shape';
import { files } from '@/store/files/folder';
import type { Rendition } from '@/store/files/renditions';
import type { Cut } from '@/store/record/cuts';
import { type Channel, noteChannelUsed, noteLine } from '@/store/site/channels';
import { followLine } from './line-share';
import { throttle } from './throttle';

const TELL_EVERY_MILLISECONDS = 500;
/** Longer than the steps in which buffers take bytes on a slow line, so that its rate does not look like nothing. */
const PACE_MILLISECONDS = 30_000;
/** A smaller file says more of the site's answers than of the line. */
const LEAST_TOLD_BYTES = 200_000;

/** A file with where it goes, and how far it is. */
export interface Carrying {
  adapter: SiteAdapter;
  session: Session;
  channel: Channel;
  rendition: Rendition;
  /** The name under which the site gets it. */
  fileName: string;
  /** What the site is asked to make room with: with the same, it makes room once. */
  key: string;
  /** How far it was before. */
  so: Pick<Drop, 'siteVideoId' | 'link' | 'carry' | 'bytesSent'>;
  /** Keeps how far it is now. */
  keep(
    fields: Pick<DropFields, 'begunWith' | 'siteVideoId' | 'link' | 'carry' | 'bytesSent' | 'progress' | 'waiting'>,
  ): Promise<void>;
  signal: AbortSignal;
}

/**
 * Carries every byte of a file to a site, on from where it is, within what it may take of the line.
 * @returns the video that the site has made of it
 * @throws SiteError; what `keep` throws
 */
export async function carryRendition(carrying: Carrying): Promise<Begun> {
  const { adapter, session, channel, rendition, fileName, key, so, keep, signal } = carrying;
  let line: Awaited<ReturnType<typeof followLine>> | undefined;
  const file = {
    fileName,
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
    await keep({ begunWith: { key, fileName, size: file.size } });
    const begun = await adapter.begin(session, channel.siteChannelId, key, file);
    await keep({ ...begun, waiting: undefined });
    return begun;
  };
  const { siteVideoId, link, carry } = so;
  let begun: Begun = siteVideoId && link && carry ? { siteVideoId, link, carry } : await begin();

  line = await followLine(channel.id);
  const since = Date.now();
  const meter = new PaceMeter(PACE_MILLISECONDS);
  let [over, telling] = [so.bytesSent, Promise.resolve()];
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
    // One at a time; the claim's own heartbeat tells where the file has been taken away.
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
  const carried = rendition.size - so.bytesSent;
  if (carried > LEAST_TOLD_BYTES && seconds > 0) await noteLine(database(), channel.id, carried / seconds);
  await noteChannelUsed(database(), channel.id);
  return begun;
}

/** The name under which the site gets the file: without folders or signs, with the ending of its container. */
export function fileNameFor({ fileName, facts }: Pick<Cut, 'fileName' | 'facts'>, { recipe }: Rendition): string {
  const container = recipe?.container ?? facts?.container ?? 'mp4';
  const base = fileName
    .replace(/\.[A-Za-z0-9]{1,5}$/, '')
    .replace(/[^\p{L}\p{N} ._-]/gu, '_')
    .slice(0, 200);
  return `${base || 'video'}.${container}`;
}

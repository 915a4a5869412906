import { string } from 'yup';
import { type Defaults, PLAIN_DEFAULTS } from '@/core/defaults';
import { instantOf, isTimed, type Moment } from '@/core/release';
import { type CalendarTime, calendarTimes, type NotRead } from '@/core/release/calendar-file';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import { videosById, videosNamed, videosTitledWithin } from '@/store/record/videos';
import { allChannels } from '@/store/site/channels';
import { DeskError } from '../desk-error';
import { tickedChannels } from '../drop/ticked';
import { keptLayers } from '../layers/layers';
import { recordValues } from '../layers/record-values';
import { dropsByVideo } from '../views/look';
import { shownTitle } from '../views/shown-title';
import { isZone } from '../zone-shape';

/** A time of a calendar file with the video that it is for; the instant is ISO 8601 in UTC. */
export interface TimeOffer {
  line: number;
  title: string;
  videoId: string;
  video: string;
  /** What is to be set: one that has a time already, such as together with its others, stays what it is. */
  set: { release?: 'at a time'; opensAt: Moment };
  at: string;
  /** The time that it has now, in UTC. */
  before: string | undefined;
  note: string | undefined;
}

export interface TimesFromFile {
  offers: TimeOffer[];
  notRead: NotRead[];
}

/** The largest calendar file that is taken in, in bytes. */
export const LARGEST_CALENDAR_FILE = 4_000_000;
const MOST_EVENTS = 2000;

const VIDEO_ID = /[0-9a-f]{8}-[0-9a-f]{4}-7[0-9a-f]{3}-[0-9a-f]{4}-[0-9a-f]{12}/;

const zoneShape = string().required().test('zone', 'This is no time zone.', isZone);

/** The videos that a title means, the nearest way in which it means any: exactly, in another case, as it goes out. */
async function videosMeant(title: string): Promise<{ id: string; title: string }[]> {
  const exactly = await videosNamed(database(), { title });
  if (exactly.length > 0) return exactly;
  const alike = await videosNamed(database(), { titleLike: title });
  const inOtherCase = alike.filter((video) => folded(video.title) === folded(title));
  return inOtherCase.length > 0 ? inOtherCase : videosShownAs(title);
}

/** The video that an event means: by its address or its id, as our own calendar has them, or by its title, as it was typed or as it goes out: exactly, or else in any case. */
async function videoOf({ title, uid, url }: CalendarTime): Promise<{ id: string; title: string } | { why: string }> {
  const db = database();
  const id = VIDEO_ID.exec(url)?.[0] ?? VIDEO_ID.exec(uid)?.[0];
  const [byId] = id ? await videosById(db, [id]) : [];
  if (byId) return { id: byId.id, title: byId.title };
  if (title === '') return { why: 'it has no title' };
  const meant = await videosMeant(title);
  if (meant.length > 1) return { why: `there are ${meant.length} videos with this title` };
  return meant[0] ?? { why: 'there is no video with this title' };
}

const folded = (title: string) => title.normalize('NFC').toLowerCase();

/** Videos whose title goes out as this, in any case, with what the patterns of their series and channels put around it. */
async function videosShownAs(title: string): Promise<{ id: string; title: string }[]> {
  const db = database();
  const ids = await videosTitledWithin(db, title);
  if (ids.length === 0) return [];
  const [videos, drops, channels, layers] = await Promise.all([
    videosById(db, ids),
    dropsOf(db, ids),
    allChannels(db),
    keptLayers(db),
  ]);
  const [byVideo, byId] = [dropsByVideo(drops), new Map(channels.map((channel) => [channel.id, channel]))];
  return videos.filter(
    (video) => folded(shownTitle(video, byVideo.get(video.id) ?? [], byId, layers)) === folded(title),
  );
}

/** When and how videos come to be open, as their records say; of one that is live wherever it goes, that. */
async function releasesNow(): Promise<(videoId: string) => Promise<Pick<Defaults, 'release' | 'opensAt'> | 'live'>> {
  const db = database();
  const [channels, layers] = await Promise.all([allChannels(db), keptLayers(db)]);
  return async (videoId) => {
    const [[video], drops] = await Promise.all([videosById(db, [videoId]), dropsOf(db, [videoId])]);
    if (drops.length > 0 && drops.every(({ state }) => state === 'live')) return 'live';
    return video ? recordValues(layers, video, tickedChannels(channels, drops)).values : PLAIN_DEFAULTS;
  };
}

/**
 * What a calendar file says of when videos open. Nothing is changed by it.
 * @param zone of times that name none
 * @throws DeskError where there is no event in it
 */
export async function timesFromFile(bytes: Buffer, zone: unknown): Promise<TimesFromFile> {
  const floating = await zoneShape.validate(zone);
  const { times, notRead } = calendarTimes(bytes.toString('utf8'), floating);
  if (times.length + notRead.length === 0) {
    throw new DeskError('not taken', 'There is no event in this file. Use a calendar file (.ics).');
  }
  if (times.length > MOST_EVENTS) {
    throw new DeskError('not taken', `There are more than ${MOST_EVENTS} events in this file. Export a shorter time.`);
  }
  const releaseOf = await releasesNow();
  const offers: TimeOffer[] = [];
  const not = [...notRead];
  for (const time of times) {
    const { line, title, opensAt, note } = time;
    const leave = (why: string) => not.push({ line, title, why });
    const found = await videoOf(time);
    if ('why' in found) leave(found.why);
    else if (instantOf(opensAt).getTime() < Date.now()) leave('its time is over');
    else {
      const now = await releaseOf(found.id);
      if (now === 'live') leave('it is live already');
      else {
        const timed = isTimed(now.release);
        const set = timed ? { opensAt } : { release: 'at a time' as const, opensAt };
        const at = instantOf(opensAt).toISOString();
        const before = timed && now.opensAt ? instantOf(now.opensAt).toISOString() : undefined;
        if (at === before) leave('it opens then already');
        else offers.push({ line, title, videoId: found.id, video: found.title, set, at, before, note });
      }
    }
  }
  return { offers, notRead: not.sort((a, b) => a.line - b.line) };
}

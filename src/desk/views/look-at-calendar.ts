import { date, object } from 'yup';
import { type Defaults, fieldInForce } from '@/core/defaults';
import { THE_READERS } from '@/core/delivery';
import { isOpenTo } from '@/core/drop';
import { freePlaces, instantOf, isTimed } from '@/core/release';
import { database } from '@/store/database';
import { dropsOf } from '@/store/drop/drops';
import type { Drop } from '@/store/drop/shape';
import { momentsOfSeries, videosOpeningBetween } from '@/store/record/releases';
import { videosById } from '@/store/record/videos';
import { channelsById } from '@/store/site/channels';
import { type KeptLayers, keptLayers, layersAt } from '../layers/layers';
import { site } from '../site/session';
import { channelView } from './look';
import type { CalendarEntry, CalendarView, FreePlace } from './views';

/** So many videos a look shows; a month of the busiest manager has fewer. */
const MOST = 2000;
const LONGEST_DAYS = 100;

const spanShape = object({
  from: date().required('Say from when.'),
  to: date().required('Say up to when.'),
})
  .noUnknown()
  .test('span', `The Calendar shows at most ${LONGEST_DAYS} days at once.`, ({ from, to }) => {
    const days = (to.getTime() - from.getTime()) / 86_400_000;
    return days > 0 && days <= LONGEST_DAYS;
  });

/** What goes out and went out from one instant up to another: each video on each channel, in the order of time. */
export async function lookAtCalendar(input: unknown): Promise<CalendarView> {
  const { from, to } = await spanShape.validate(input, { stripUnknown: false });
  const layers = await keptLayers(database());
  const [openings, places] = await Promise.all([openingsBetween(from, to), freePlacesBetween(layers, from, to)]);
  return { ...openings, places };
}

/** The free places of all series' rhythms that are to come, in the order of time. */
async function freePlacesBetween({ series, defaults }: KeptLayers, from: Date, to: Date): Promise<FreePlace[]> {
  const after = new Date(Math.max(from.getTime(), Date.now()) - 1);
  const places: FreePlace[] = [];
  for (const { id, name } of series.values()) {
    const rhythm = defaults.get(id)?.rhythm;
    if (!rhythm || after >= to) continue;
    const moments = await momentsOfSeries(database(), id, { from: after, to });
    const taken = new Set(moments.map((moment) => instantOf(moment).getTime()));
    for (const place of freePlaces(rhythm, after, taken, LONGEST_DAYS, to)) {
      places.push({ seriesId: id, series: name, at: instantOf(place).toISOString() });
    }
  }
  return places.sort((a, b) => a.at.localeCompare(b.at));
}

/** The zone whose date a site prints, where it is one. */
function zonePrinted(siteId: string): string | null {
  const { printsDateIn } = site(siteId).profile;
  return printsDateIn && printsDateIn !== THE_READERS ? printsDateIn : null;
}

/** What opens and has opened in a span of any length. @param most videos */
export async function openingsBetween(from: Date, to: Date, most = MOST): Promise<Omit<CalendarView, 'places'>> {
  const db = database();
  const ids = await videosOpeningBetween(db, from, to, most);
  const [videos, drops, layers] = await Promise.all([videosById(db, ids), dropsOf(db, ids), keptLayers(db)]);
  const channels = await channelsById(db, [...new Set(drops.map(({ channelId }) => channelId))]);
  const byId = new Map(videos.map((video) => [video.id, video]));
  const entries = drops.flatMap((drop): CalendarEntry[] => {
    const [video, channel] = [byId.get(drop.videoId), channels.get(drop.channelId)];
    if (!video || !channel) return [];
    // Of some forty values just these: that is most of the time where there are thousands of drops.
    const over = layersAt(layers, video, channel, drop);
    const value = <F extends 'release' | 'opensAt' | 'privacy'>(field: F) =>
      fieldInForce(field, over).value as Defaults[F];
    const [release, opensAt] = [value('release'), value('opensAt')];
    // How long a channel is left in peace is a rule of today, also for what was sent before.
    const apart = () =>
      fieldInForce('hoursApart', layersAt(layers, video, channel, { ...drop, sentWith: undefined })).value as number;
    const timed = isToOpen(drop) && isTimed(release) && value('privacy') !== 'private';
    const entry = (
      at: Date,
      now: Pick<CalendarEntry, 'state' | 'opensAt' | 'since' | 'hoursApart'>,
    ): CalendarEntry[] => {
      if (at < from || at >= to) return [];
      return [
        {
          videoId: video.id,
          title: video.title,
          at: at.toISOString(),
          channel: channelView(channel),
          together: release === 'together',
          setHere: drop.own.opensAt !== undefined,
          printsDateIn: zonePrinted(channel.site),
          ...now,
        },
      ];
    };
    const since = becameOf(drop);
    const { state, openedAt } = drop;
    return [
      ...(openedAt ? entry(openedAt, { state: since ? 'removed' : state, opensAt: null, since, hoursApart: 0 }) : []),
      ...(timed && opensAt ? entry(instantOf(opensAt), { state, opensAt, since: undefined, hoursApart: apart() }) : []),
    ];
  });
  entries.sort((a, b) => a.at.localeCompare(b.at) || a.title.localeCompare(b.title));
  return { entries, more: ids.length === most };
}

type Opened = Pick<Drop, 'state' | 'snag' | 'openedTo' | 'openedAt' | 'former'>;

const isGone = ({ state, snag }: Opened) => state === 'removed' || state === 'removing' || snag?.at === 'removing';

/** Whether others than its owner can see it, or the video whose place it is to take. */
const isOpenNow = ({ openedTo, former }: Opened) => isOpenTo(openedTo) || isOpenTo(former?.openedTo);

/** Whether a drop has its set time before it. What is live for its owner alone waits for nothing until it is sent anew. */
const isToOpen = (drop: Opened) =>
  !isGone(drop) && drop.state !== 'live' && (drop.openedAt === undefined || !isOpenNow(drop));

/** What became of a drop that has opened; undefined where it is open still. */
function becameOf(drop: Opened): CalendarEntry['since'] {
  if (isOpenNow(drop) && !isGone(drop)) return undefined;
  return drop.openedTo === 'private' && !isGone(drop) ? 'closed' : 'removed';
}

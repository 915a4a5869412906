import { type DefaultField, type LayerValues, valuesOf } from '@/core/defaults';
import { isWider, mayMove, OPEN_TO } from '@/core/drop';
import { agreedAfterChange, releaseThere } from '@/core/release';
import { SITE_PROFILES } from '@/sites/profiles';
import { databaseTime } from '@/store/clock';
import type { Database } from '@/store/database';
import { dropsOf, moveDrop, setDrop } from '@/store/drop/drops';
import { addDropEvent } from '@/store/drop/events';
import { lookAtHeldAgain } from '@/store/drop/held';
import type { Drop } from '@/store/drop/shape';
import { isOpeningNow, takeWordBack, takeWordBackAtMoment } from '@/store/drop/words';
import { type Video, videoById } from '@/store/record/videos';
import { channelsById } from '@/store/site/channels';
import { DeskError } from '../desk-error';
import { inForceAt, type KeptLayers, keptLayers } from '../layers/layers';

/** Fields that decide when a video opens, and to whom. */
const OPENING_FIELDS: readonly DefaultField[] = ['privacy', 'release', 'opensAt', 'lateAtMost'];
/** Of these, what may not change while a site is asked to open it: one of the two would win by half. */
const MOMENT_FIELDS: readonly DefaultField[] = ['release', 'opensAt'];

/**
 * Has drops that are held, or have missed their moment, keep to another release from now on. What was chosen opens nothing by
 * itself but at a time that is still to come; where fewer are to see a video, it is closed to the others at once. Its video is
 * locked, and has the change.
 * @param before what the video, or it on one channel, set until now
 * @param channelId of the one channel that it is set for
 * @throws DeskError where the moment is changed and a site is just being asked to open it
 */
export async function keepToRelease(
  trx: Database,
  videoId: string,
  before: LayerValues,
  after: LayerValues,
  channelId?: string,
): Promise<void> {
  const differs = (field: DefaultField) => JSON.stringify(before[field]) !== JSON.stringify(after[field]);
  if (!OPENING_FIELDS.some(differs)) return;
  if (MOMENT_FIELDS.some(differs) && (await isOpeningNow(trx, videoId))) {
    throw new DeskError('not now', 'It is being opened at this moment, as was set. Look at it again in a few seconds.');
  }
  await lookAtHeldAgain(trx, videoId);
  const drops = (await dropsOf(trx, [videoId])).filter(
    (drop) => (channelId === undefined || drop.channelId === channelId) && drop.state !== 'draft',
  );
  if (drops.length === 0) return;
  const [video, layers, now] = [await videoById(trx, videoId), await keptLayers(trx), await databaseTime(trx)];
  const channels = await channelsById(
    trx,
    drops.map((drop) => drop.channelId),
  );
  for (const drop of drops) {
    // What is said last holds: a word of before does not open it ahead of a time that was set since.
    const taken = MOMENT_FIELDS.some(differs)
      ? (await takeWordBack(trx, drop.id)) || (await takeWordBackAtMoment(trx, drop.id))
      : false;
    if (taken) {
      await addDropEvent(trx, drop.id, 'word', 'Not opened by your word: another release was set since');
    }
    const channel = channels.get(drop.channelId);
    if (video && channel) await keepTo(trx, drop, { video, layers, channel, now });
    if (drop.snag?.kind === 'missed') await moveDrop(trx, drop, 'tryAgain', 'Its release was changed');
  }
}

interface Setting {
  video: Video;
  layers: KeptLayers;
  channel: Parameters<typeof inForceAt>[2];
  now: Date;
}

/** Has one drop keep to what is in force for it now. */
async function keepTo(trx: Database, drop: Drop, { video, layers, channel, now }: Setting): Promise<void> {
  const profile = SITE_PROFILES[channel.site];
  const values = valuesOf(inForceAt(layers, video, channel, drop));
  const release = releaseThere(values, profile?.firstShowings === true);
  await setDrop(trx, drop.id, { agreed: agreedAfterChange(release, drop.agreed, now) });
  const { end } = release;
  const isToNarrow = drop.openedTo !== undefined && isWider(drop.openedTo, end) && !drop.former;
  if (!isToNarrow || !profile || profile.opensItself || !(end in profile.privacies)) return;
  // What is on its way is narrowed before anything else is done with it.
  if (drop.state !== 'live' && drop.state !== 'snag') return;
  if (!mayMove('close', drop.state, drop.snag)) return;
  const says = end === 'private' ? 'Being closed: private' : `Being narrowed: open ${OPEN_TO[end]} only`;
  await moveDrop(trx, drop, 'close', says, { openAsked: false });
}

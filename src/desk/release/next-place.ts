import { fieldInForce } from '@/core/defaults';
import { freePlaces, instantOf, type Moment, type Rhythm } from '@/core/release';
import { database } from '@/store/database';
import { momentsOfSeries } from '@/store/record/releases';
import { videoById } from '@/store/record/videos';
import { found } from '../desk-error';
import { keptLayers, layersAt } from '../layers/layers';

/** The next place of its series' rhythm at which no other video of the series opens; nothing where there is no rhythm. */
export async function nextPlace(videoId: string): Promise<{ place?: Moment; instant?: string }> {
  const db = database();
  const video = found(await videoById(db, videoId), 'video');
  const rhythm = fieldInForce('rhythm', layersAt(await keptLayers(db), video)).value as Rhythm | null;
  if (!rhythm || !video.seriesId) return {};
  const now = new Date();
  const moments = await momentsOfSeries(db, video.seriesId, { from: now, but: videoId });
  const taken = new Set(moments.map((moment) => instantOf(moment).getTime()));
  const [place] = freePlaces(rhythm, now, taken, 1);
  return place ? { place, instant: instantOf(place).toISOString() } : {};
}

import { areAlike } from '@/core/likeness';
import { alreadySent, type Finding } from '@/core/preflight';
import type { Database } from '@/store/database';
import { cutsSentOfLength } from '@/store/record/cuts';
import { measurementsOf } from '@/store/record/measurements';
import type { VideoRecord } from '../drop/record';
import type { TickedChannel } from '../layers/record-values';

/** Pairs of cuts that were compared: what a cut is never changes. */
const compared = new Map<string, boolean>();
const MOST_KEPT = 5000;
const APART_SECONDS = 15;

/** Whether much the same video went before to a channel that this one has not been sent to yet, as findings. */
export async function alreadySentFindings(
  db: Database,
  { cut, video }: VideoRecord,
  ticked: readonly TickedChannel[],
): Promise<Finding[]> {
  const open = ticked.filter(({ drop }) => drop.state === 'draft');
  if (!cut?.facts || open.length === 0) return [];
  const { num, den } = cut.facts.duration;
  const others = await cutsSentOfLength(db, {
    ...{ videoId: video.id, seconds: num / den, within: APART_SECONDS },
    channelIds: open.map(({ channel }) => channel.id),
  });
  const pair = (id: string) => [cut.id, id].sort().join();
  const unknown = others.filter(({ id }) => !compared.has(pair(id)));
  if (unknown.length > 0) {
    const found = await measurementsOf(db, [cut.id, ...unknown.map(({ id }) => id)]);
    const own = found.get(cut.id);
    if (!own) return [];
    if (compared.size > MOST_KEPT) compared.clear();
    for (const { id, facts } of unknown) {
      const measures = found.get(id);
      if (!measures) continue;
      const alike = areAlike({ measures: own, rate: cut.facts.video.rate }, { measures, rate: facts.video.rate });
      compared.set(pair(id), alike);
    }
  }
  return others
    .filter(({ id }) => compared.get(pair(id)))
    .map(({ title, channelIds }) => {
      const names = open.filter(({ channel }) => channelIds.includes(channel.id)).map(({ channel }) => channel.name);
      return alreadySent(title, names);
    });
}

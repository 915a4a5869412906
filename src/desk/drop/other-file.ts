import type { Database } from '@/store/database';
import type { Drop } from '@/store/drop/shape';
import { cutDigestsOf } from '@/store/files/renditions';
import { betterCut, type Cut } from '@/store/record/cuts';
import type { VideoRecord } from './record';

/** Whether the cut in use is another than the one that a site’s file was made from. @param there its digest, where that is known */
export const isOtherFile = (inUse: Pick<Cut, 'state' | 'digest'> | undefined, there: string | undefined): boolean =>
  inUse?.state === 'ready' && there !== undefined && there !== inUse.digest;

/** Whether a video has another file than the one that a drop’s site has: one that is here, or one that is still coming. */
export async function otherFile(
  db: Database,
  { cut, cuts }: Pick<VideoRecord, 'cut' | 'cuts'>,
  { renditionId }: Pick<Drop, 'renditionId'>,
): Promise<'here' | 'coming' | undefined> {
  const there = renditionId ? (await cutDigestsOf(db, [renditionId])).get(renditionId) : undefined;
  if (isOtherFile(cut, there)) return 'here';
  const coming = betterCut(cuts)?.state;
  return coming !== undefined && coming !== 'refused' ? 'coming' : undefined;
}

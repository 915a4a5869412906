import type { CutFacts } from '@/core/delivery';
import { type Missing, missingFor } from '@/core/drop';
import { demandOf } from '@/core/renditions';
import type { SiteProfile } from '@/sites/contract';
import type { Channel } from '@/store/site/channels';
import { FILE_GONE } from '../cut-file';
import { type MeantDrop, type MeantWords, meantWords } from './meant';
import { pictureAt } from './picture-at';
import type { VideoRecord } from './record';

/** What keeps a record from going to a channel. @param drop what was chosen for the channel alone */
export function missingAt(
  record: VideoRecord,
  channel: Channel,
  drop: MeantDrop | undefined,
  profile: SiteProfile,
): Missing[] {
  return missingOf(record, meantWords(record, channel, drop, profile), profile);
}

/**
 * The same of words that are fitted already.
 * @param meant what would go out
 * @param profile what the channel takes
 */
export function missingOf(record: VideoRecord, meant: MeantWords, profile: SiteProfile): Missing[] {
  const { cut } = record;
  const picture = pictureAt(record, profile);
  const { fitted, end, password, waitsFor, opensAt, declarations } = meant;
  const facts = cut?.facts;
  const gone = cut?.goneAt && meant.needsFile ? `${FILE_GONE}. Add it again` : undefined;
  const cutRefused = cut ? (gone ?? cut.refusal) : 'There is no file yet';
  const fileRefused = facts && fileRefusedAt(facts, meant, profile);
  const input = {
    fitted,
    declarations,
    privacy: end,
    password,
    waitsFor,
    opensAt,
    facts,
    cutRefused,
    fileRefused,
    picture,
  };
  return missingFor(input, profile);
}

/** Why no file can be made that a site takes, with what comes nearest. What the sound is like changes nothing of that. */
function fileRefusedAt(
  facts: CutFacts,
  { fileSet, remedies, framings }: MeantWords,
  site: SiteProfile,
): string | undefined {
  const demand = demandOf({ facts, measures: undefined }, { site, set: fileSet, remedies, framings });
  return 'refused' in demand ? `${demand.refused}. ${demand.nearest}` : undefined;
}

import { pictureFindings } from '@/core/drop';
import type { SiteProfile } from '@/sites/contract';
import type { Picture } from '@/store/record/pictures';
import type { VideoRecord } from './record';

/** The picture in the shape that a site takes; the one that was chosen, where none of its shapes is. */
export function pictureAt(
  { picture, forms, cut }: Pick<VideoRecord, 'picture' | 'forms' | 'cut'>,
  profile: SiteProfile,
): Picture | undefined {
  if (!picture) return undefined;
  return [picture, ...forms].find((each) => pictureFindings(each, profile, cut?.facts).length === 0) ?? picture;
}

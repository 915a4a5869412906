import type { SiteVersion } from '@/core/drop';
import type { StepContext } from './step';

/** Keeps which versions of the video the site has ready, where that has changed. */
export async function keepVersions(
  { drop, keep }: Pick<StepContext, 'drop' | 'keep'>,
  versions: SiteVersion[] | undefined,
): Promise<void> {
  if (!versions || JSON.stringify(versions) === JSON.stringify(drop.versions)) return;
  drop.versions = versions;
  await keep({ versions });
}

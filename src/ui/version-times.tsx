import { Fragment } from 'react';
import type { SiteVersion } from '@/core/drop';
import { Moment } from './moment';

/** How a version that a site has made is called. */
export const versionName = ({ of, lines }: SiteVersion): string =>
  of === 'thumbnail' ? 'thumbnail' : `${lines} lines`;

/** What of a video its site has ready, each with when it became so, in one line. */
export function VersionTimes({ versions }: { versions: readonly SiteVersion[] }) {
  if (versions.length === 0) return null;
  return (
    <p className="text-[13px] text-soft">
      Ready there:{' '}
      {versions.map((version, index) => (
        <Fragment key={versionName(version)}>
          <span className="whitespace-nowrap">
            {versionName(version)} <Moment at={version.readyAt} short />
            {index < versions.length - 1 && ' ·'}
          </span>{' '}
        </Fragment>
      ))}
    </p>
  );
}

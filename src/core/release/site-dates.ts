import { type SiteRules, THE_READERS } from '../delivery';

/** The calendar date in a zone at an instant: 2026-11-28. */
export function dateIn(zone: string, instant: Date): string {
  // Of the languages that the engine knows, Swedish writes a date as ISO 8601 does.
  return new Intl.DateTimeFormat('sv-SE', { timeZone: zone, year: 'numeric', month: '2-digit', day: '2-digit' }).format(
    instant,
  );
}

/** The date that a site prints under a video that opens at an instant. */
export interface SiteDate {
  site: string;
  /** The site's own zone; null where it prints the date of whoever looks. */
  zone: string | null;
  /** As 2026-11-28. */
  date: string;
  /** Whether that is another day than where the manager is. */
  otherDay: boolean;
}

/**
 * The dates that sites print under a video, of those that print one.
 * @param zone the manager's
 */
export function siteDates(
  instant: Date,
  zone: string,
  sites: readonly Pick<SiteRules, 'name' | 'printsDateIn'>[],
): SiteDate[] {
  const here = dateIn(zone, instant);
  return sites.flatMap(({ name, printsDateIn }) => {
    if (!printsDateIn) return [];
    const there = printsDateIn === THE_READERS ? null : printsDateIn;
    const date = there ? dateIn(there, instant) : here;
    return [{ site: name, zone: there, date, otherDay: date !== here }];
  });
}

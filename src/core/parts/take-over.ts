import type { SiteRules } from '../delivery';
import type { TakenOver, TakeOverFrom } from './part';
import type { PartName } from './values';
import { partOf } from './walk';

/** Whether a record can take over all of these parts as a site shows them. */
export function mayTakeOver(parts: readonly PartName[], site: SiteRules): boolean {
  return (
    parts.length > 0 &&
    parts.every((name) => {
      const { takeOver, takenOverWith } = partOf(name);
      const along = takenOverWith?.(site);
      return takeOver !== undefined || (along !== undefined && parts.includes(along));
    })
  );
}

/** What the record takes over of these parts for one channel, as its site shows them. */
export function takenOver(parts: readonly PartName[], from: TakeOverFrom): TakenOver {
  const all: TakenOver = {};
  for (const name of parts) {
    const shown = from.shown[name];
    const { set, playlists } = partOf(name).takeOver?.((shown ?? '') as never, from) ?? {};
    if (set) all.set = { ...all.set, ...set };
    if (playlists) all.playlists = playlists;
  }
  return all;
}

import { isTooNear } from '@/core/release/apart';
import type { CalendarEntry } from '@/desk/views/views';
import type { Opening } from './days';

/** What an opening lies too near to, or would at another instant: what opens there, and on which channel. */
export interface Near {
  title: string;
  channel: string;
}

/**
 * The releases that an opening is too near to on its channels, by the hours that either is to have.
 * @param at the instant at which it would open; its own where it is not moved
 */
export function tooNearTo({ entries }: Opening, at: Date, all: readonly CalendarEntry[]): Near[] {
  const found = entries.flatMap((entry) => {
    const moved = { ...entry, at: at.toISOString() };
    return all.filter((other) => isTooNear(moved, other) || isTooNear(other, moved));
  });
  const names = new Map(
    found.map(({ videoId, title, channel }) => [`${videoId} ${channel.id}`, [title, channel.name]]),
  );
  return [...names.values()].map(([title = '', channel = '']) => ({ title: title || 'another video', channel }));
}

/** What is said of it, in a line. */
export const nearWords = (near: readonly Near[]): string =>
  near.map(({ title, channel }) => `too near to “${title}” on ${channel}`).join('; ');

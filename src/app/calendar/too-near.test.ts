import { describe, expect, it } from 'vitest';
import type { CalendarEntry } from '@/desk/views/views';
import { nearWords, tooNearTo } from './too-near';

const entry = (videoId: string, at: string, hoursApart: number, channel = 'Tide Notes') =>
  ({ videoId, title: videoId, at, hoursApart, channel: { id: channel, name: channel } }) as CalendarEntry;
const opening = (...entries: CalendarEntry[]) => ({ key: '', at: new Date(entries[0]?.at ?? ''), entries });

describe('what opens', () => {
  const [here, there] = [entry('Keel', '2026-12-04T12:00:00Z', 24), entry('Keel', '2026-12-04T12:00:00Z', 0, 'Quay')];
  const all = [
    ...[here, there, entry('Tar', '2026-12-05T11:00:00Z', 0), entry('Oakum', '2026-12-05T12:00:00Z', 0)],
    entry('Rope', '2026-12-04T18:00:00Z', 12, 'Quay'),
  ];

  it('is too near to what opens on one of its channels within the hours that either is to have', () => {
    const near = tooNearTo(opening(here, there), new Date(here.at), all);
    expect(nearWords(near)).toBe('too near to “Tar” on Tide Notes; too near to “Rope” on Quay');
  });

  it('is seen where it would lie before it is let go', () => {
    const at = (instant: string) => nearWords(tooNearTo(opening(here), new Date(instant), all));
    expect(at('2026-12-06T11:00:00Z')).toBe('too near to “Oakum” on Tide Notes');
    expect(at('2026-12-06T12:00:00Z')).toBe('');
  });
});

import { describe, expect, it } from 'vitest';
import { overdueMinutes, PATIENCE_MINUTES, PUT_OFFS } from './patience';

const since = new Date('2026-11-25T10:00:00Z');
const minutesOn = (minutes: number) => new Date(since.getTime() + minutes * 60_000);

describe('a drop that its site puts off', () => {
  it.each(PUT_OFFS)('needs a person when patience with “%s” is over, and not before', (kind) => {
    const most = PATIENCE_MINUTES[kind];
    expect(overdueMinutes(since, kind, 'settling', minutesOn(most - 0.1))).toBeUndefined();
    expect(overdueMinutes(since, kind, 'settling', minutesOn(most))).toBe(most);
    expect(overdueMinutes(since, kind, 'settling', minutesOn(most + 30))).toBe(most + 30);
  });

  it('is never overdue where nothing puts it off', () => {
    expect(overdueMinutes(undefined, undefined, 'opening', minutesOn(1000))).toBeUndefined();
    expect(overdueMinutes(since, undefined, 'opening', minutesOn(1000))).toBeUndefined();
  });

  it('needs a person at once where it is not opened at its moment', () => {
    expect(overdueMinutes(since, 'unreachable', 'opening', minutesOn(0))).toBe(0);
  });
});

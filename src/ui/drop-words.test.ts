import { describe, expect, it } from 'vitest';
import type { BoardRow, DropView } from '@/desk/look/views';
import { headline, underline } from '../app/board/headline';
import { dropWords } from './drop-words';
import { lookOf } from './stops';

const drop = (fields: Partial<DropView>): DropView => ({
  id: 'd',
  channelId: 'c',
  state: 'landing',
  stops: 1,
  snag: undefined,
  waiting: undefined,
  progress: undefined,
  bytesSent: 0,
  bytesTotal: 0,
  link: undefined,
  liveAt: undefined,
  openedTo: undefined,
  overdue: undefined,
  otherFile: false,
  ...fields,
});

describe('where a drop stands, in words', () => {
  it('says what a person has to settle before anything else', () => {
    const snag = { at: 'clearing' as const, kind: 'rights' as const, what: 'Rights match', remedy: 'Agree' };
    expect(dropWords(drop({ state: 'snag', snag, waiting: 'waits' }))).toBe('Rights match');
    expect(dropWords(drop({ waiting: 'Lanternfold asks to wait' }))).toBe('Lanternfold asks to wait');
  });

  it('says progress, rate and time left of a transfer', () => {
    const progress = { says: '62 % · 18.4 Mbit/s', fraction: 0.62, bytesPerSecond: 2_300_000, secondsLeft: 170 };
    expect(dropWords(drop({ progress }))).toBe('Landing 62 % · 18.4 Mbit/s · 3 min left');
    expect(dropWords(drop({ progress: { says: 'giving title, text and picture' } }))).toBe(
      'Landing: giving title, text and picture',
    );
  });

  it('says what the site does, and each resting state', () => {
    const settling = { says: 'first version', fraction: 0.416 };
    expect(dropWords(drop({ state: 'settling', progress: settling }))).toBe('Settling: first version 41 %');
    expect(dropWords(drop({ state: 'packing' }))).toBe('Packing');
    expect(dropWords(drop({ state: 'draft' }))).toBe('Not sent yet');
    expect(dropWords(drop({ state: 'held' }))).toBe('Waits for your word');
    expect(dropWords(drop({ state: 'live', liveAt: '2026-11-24T00:00:00Z' }))).toBe('Live · proofed');
    expect(dropWords(drop({ state: 'removed' }))).toBe('Removed from the site');
  });

  it('has a look for each state', () => {
    expect(
      (['draft', 'removed', 'landing', 'held', 'live', 'snag'] as const).map((state) => lookOf({ state })),
    ).toEqual(['idle', 'idle', 'moving', 'held', 'live', 'snag']);
  });
});

describe('the top of the Board', () => {
  const row = (group: BoardRow['group'], ...drops: DropView[]): BoardRow => ({
    videoId: 'v',
    title: 't',
    group,
    pictureId: undefined,
    cut: undefined,
    betterCut: undefined,
    drops: drops.map((drop) => ({ ...drop, missing: 0 })),
  });

  it('says first what needs a person', () => {
    expect(headline([])).toBe('Nothing needs you');
    expect(headline([row('needs you')])).toBe('One thing needs you');
    expect(headline([row('needs you'), row('needs you'), row('waiting')])).toBe('Two things need you');
    expect(headline(Array.from({ length: 12 }, () => row('needs you')))).toBe('12 things need you');
  });

  it('then what moves, how fast and until when, and what is held', () => {
    const landing = drop({ progress: { says: '', bytesPerSecond: 1_000_000, secondsLeft: 540 } });
    const rows = [row('on the way', landing, drop({ state: 'settling' })), row('waiting', drop({ state: 'held' }))];
    expect(underline(rows, [])).toBe('2 on the way · line 8.0 Mbit/s · all up in about 9 min · 1 held');
    expect(underline([], [])).toBe('');
  });
});

import { describe, expect, it } from 'vitest';
import { STATE_WORDS } from '@/core/drop';
import type { DropView } from '@/desk/views/views';
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
  opensAt: undefined,
  onWord: false,
  versions: [],
  openedTo: undefined,
  closedFrom: undefined,
  overdue: undefined,
  otherFile: false,
  changedThere: [],
  notTaken: [],
  giving: undefined,
  matched: false,
  otherFileStays: true,
  linkEnds: false,
  formerLinks: [],
  replacing: false,
  ...fields,
});

describe('where a drop stands, in words', () => {
  it('says what a person has to settle before anything else', () => {
    const snag = { at: 'clearing' as const, kind: 'rights' as const, what: 'Rights match', remedy: 'Agree' };
    expect(dropWords(drop({ state: 'snag', snag, waiting: 'waits' }), 'UTC')).toBe('Rights match');
    expect(dropWords(drop({ waiting: 'Lanternfold asks to wait' }), 'UTC')).toBe('Lanternfold asks to wait');
  });

  it('says progress, rate and time left of a transfer', () => {
    const progress = { says: '62 % · 18.4 Mbit/s', fraction: 0.62, bytesPerSecond: 2_300_000, secondsLeft: 170 };
    expect(dropWords(drop({ progress }), 'UTC')).toBe(`${STATE_WORDS.landing} 62 % · 18.4 Mbit/s · 3 min left`);
    expect(dropWords(drop({ progress: { says: 'setting title, text and picture' } }), 'UTC')).toBe(
      `${STATE_WORDS.landing}: setting title, text and picture`,
    );
  });

  it('says what the site does, and each resting state', () => {
    const settling = { says: 'first version', fraction: 0.416 };
    expect(dropWords(drop({ state: 'settling', progress: settling }), 'UTC')).toBe(
      `${STATE_WORDS.settling}: first version 41 %`,
    );
    expect(dropWords(drop({ state: 'packing' }), 'UTC')).toBe(STATE_WORDS.packing);
    expect(dropWords(drop({ state: 'draft' }), 'UTC')).toBe(STATE_WORDS.draft);
    expect(dropWords(drop({ state: 'held' }), 'UTC')).toBe(STATE_WORDS.held);
    expect(dropWords(drop({ state: 'live', liveAt: '2026-11-24T00:00:00Z' }), 'UTC')).toBe('Live · checked');
    expect(dropWords(drop({ state: 'live', changedThere: ['title'] }), 'UTC')).toBe('Live · changed there: title');
    expect(dropWords(drop({ state: 'live', notTaken: ['playlists'] }), 'UTC')).toBe(
      'Live · not taken there: playlists',
    );
    const giving = (trouble?: string) => drop({ state: 'live', changedThere: ['title'], giving: { trouble } });
    expect(dropWords(giving(), 'UTC')).toBe('Live · changes on their way');
    expect(dropWords(giving('busy'), 'UTC')).toBe('Live · changes wait for the site');
    expect(dropWords(drop({ state: 'live', matched: true, changedThere: ['title'] }), 'UTC')).toBe(
      'Live · a rights match needs you',
    );
    expect(dropWords(drop({ state: 'removed' }), 'UTC')).toBe(STATE_WORDS.removed);
  });

  it('says to whom it is still open while it is being closed, until the site has said that it is', () => {
    const closing = (fields: Partial<DropView>) => dropWords(drop({ state: 'closing', ...fields }), 'UTC');
    expect(closing({ openedTo: 'everyone' })).toBe('Closing · still open to everyone');
    const waiting = 'Fieldgate does not answer; tries again in 5 s';
    expect(closing({ openedTo: 'link', waiting })).toBe(`Closing · still open by link: ${waiting}`);
    expect(closing({ openedTo: 'private', waiting })).toBe(waiting);
    expect(closing({ openedTo: undefined })).toBe(STATE_WORDS.closing);
  });

  it('has a look for each state', () => {
    expect(lookOf(drop({ state: 'live', matched: true }))).toBe('snag');
    expect(
      (['draft', 'removed', 'landing', 'held', 'live', 'snag'] as const).map((state) => lookOf({ state })),
    ).toEqual(['idle', 'idle', 'moving', 'held', 'live', 'snag']);
  });
});

describe('the top of the Board', () => {
  it('says first how many videos need a person', () => {
    expect([0, 1, 2, 12, 1200].map((needs) => headline(needs))).toEqual([
      'Nothing needs you',
      'One video needs you',
      'Two videos need you',
      '12 videos need you',
      '1,200 videos need you',
    ]);
  });

  it('then how fast what moves is, and until when', () => {
    expect(underline({ bytesPerSecond: 1_000_000, secondsLeft: 540 }, [])).toBe(
      'line 8.0 Mbit/s · all up in about 9 min',
    );
    expect(underline({ bytesPerSecond: 0, secondsLeft: 0 }, [])).toBe('');
  });
});

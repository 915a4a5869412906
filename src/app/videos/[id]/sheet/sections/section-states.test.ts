import { describe, expect, it } from 'vitest';
import type { PartName } from '@/core/parts';
import type { SheetChannel, SheetView } from '@/desk/views/views';
import { findingsOf, isAsked, sectionStates } from './section-states';
import { SECTIONS, sectionOf, snagPlace } from './sections';

const missing = (place: SheetChannel['missing'][number]['place'], what: string) => ({ place, what });
const channel = (name: string, more: Partial<SheetChannel> = {}) =>
  ({
    ...{ id: name, name, ticked: true, drop: undefined, changes: [], missing: [], events: [] },
    ...{ rules: { chapters: { way: 'description' }, declares: undefined, captions: false } },
    ...more,
  }) as unknown as SheetChannel;
const sheet = (channels: SheetChannel[], more: Partial<SheetView> = {}) =>
  ({
    ...{ channels, captions: [], picture: undefined, cut: undefined, betterCut: undefined, series: undefined },
    ...{ fileFindings: [], wavedThrough: [] },
    ...{
      titleFrom: 'person',
      chaptersChosen: undefined,
      values: { forChildren: undefined, products: [], credits: [] },
    },
    ...more,
  }) as unknown as SheetView;
const drop = (state: string) => ({ state }) as SheetChannel['drop'];
const NONE = { markers: 0, chapters: 0 };

describe('what there is to settle', () => {
  it('stands once, with all channels that it holds for, in the order of the sections', () => {
    const both = [missing('declared-forChildren', 'Say it'), missing('title', 'Too long')];
    const found = findingsOf(
      sheet([channel('A', { missing: both }), channel('B', { missing: [missing('title', 'Too long')] })]),
    );
    expect(found.map(({ what, channels }) => [what, channels.map(({ name }) => name)])).toEqual([
      ['Too long', ['A', 'B']],
      ['Say it', ['A']],
    ]);
  });

  it('is asked of what is to go, and of what stands still; not of what is there or on its way', () => {
    expect(isAsked(channel('A'))).toBe(true);
    expect(isAsked(channel('A', { ticked: false }))).toBe(false);
    for (const [state, asked] of [
      ['draft', true],
      ['removed', true],
      ['snag', true],
      ['live', false],
      ['landing', false],
    ] as const) {
      expect([state, isAsked(channel('A', { drop: drop(state) }))]).toEqual([state, asked]);
    }
    const changes = [{ field: 'title', was: 'a', is: 'b' }] as SheetChannel['changes'];
    expect(isAsked(channel('A', { drop: drop('live'), changes }))).toBe(true);
  });
});

describe('sections of a Sheet', () => {
  it('count what is missing in them, and are open where they ask for work', () => {
    const states = sectionStates(sheet([channel('A', { missing: [missing('picture', 'Too small')] })]), NONE);
    expect(states.picture).toMatchObject({ missing: 1, done: false, asksForWork: true });
    expect(states.words).toMatchObject({ missing: 0, done: true });
    expect(states.chapters).toMatchObject({ asksForWork: false, done: false });
    expect(states.markers.used).toBe(false);
    expect(states.declarations.used).toBe(false);
    expect(states.file.asksForWork).toBe(true);
  });

  it('ask which markers are for viewers until somebody has said so', () => {
    const asks = (more: object, count = { markers: 3, chapters: 0 }) =>
      sectionStates(sheet([channel('A')], more), count).chapters.asksForWork;
    expect(asks({})).toBe(true);
    expect(asks({ chaptersChosen: 'here' })).toBe(false);
    expect(asks({}, { markers: 3, chapters: 2 })).toBe(false);
    expect(sectionStates(sheet([channel('A')]), { markers: 3, chapters: 2 }).chapters.says).toBe(
      '2 chapters · 1 note stays private',
    );
  });

  it('hold every place that something can be missing at, and that a snag is mended at', () => {
    expect(sectionOf('cut')).toBe('file');
    expect(sectionOf('privacy')).toBe('words');
    expect(sectionOf('declared-products')).toBe('declarations');
    expect(SECTIONS.indexOf('words')).toBeLessThan(SECTIONS.indexOf('markers'));
    const snag = { at: 'proofing', what: '', remedy: '' } as const;
    expect(snagPlace({ ...snag, kind: 'difference', parts: ['title'] })).toBe('title');
    const leads = (part: PartName) => sectionOf(snagPlace({ ...snag, kind: 'difference', parts: [part] }) ?? 'cut');
    expect((['text', 'picture', 'captions', 'playlists', 'audience'] as const).map(leads)).toEqual([
      ...['words', 'picture', 'captions', 'words', 'declarations'],
    ]);
    expect(snagPlace({ ...snag, kind: 'rights' })).toBe('cut');
    expect(snagPlace({ ...snag, kind: 'permission' })).toBeUndefined();
  });
});

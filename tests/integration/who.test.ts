import { afterAll, describe, expect, it } from 'vitest';
import { MANAGER, type Who } from '@/core/actor';
import { redo, undo } from '@/desk/changes/changes';
import { askOfMany, lookAtManyActs, undoMany } from '@/desk/many/ask-many';
import { doMany } from '@/desk/many/do-many';
import { editVideo } from '@/desk/video/edit-video';
import { lookAtSheet } from '@/desk/views/look-at-sheet';
import { askedBy } from '@/desk/window';
import { actAs, actorNow } from '@/store/actor';
import { closeDatabase, database } from '@/store/database';
import { newId } from '@/store/ids';
import { manyActById } from '@/store/record/many-acts';
import { makeVideo, videoById } from '@/store/record/videos';
import { newVideo } from '../setup/new-video';

afterAll(closeDatabase);

const as = (who: Who, work: () => Promise<unknown>) => askedBy({ who }, newId(), work);
const video = (title = 'Keel') => makeVideo(database(), newVideo(title));
const recordOf = async (id: string) => {
  const { title, summary, own } = (await videoById(database(), id)) ?? {};
  return { title, summary, ...own };
};
const by = async (subject: string): Promise<(string | null)[]> =>
  database()('changes').where({ subject }).orderBy('id').pluck('actor');

describe('who does something', () => {
  it('is written down with each change, and is the manager where nobody else is said to', async () => {
    const id = await video();
    await editVideo(id, { title: 'By a page' });
    await actAs({ who: MANAGER, via: 'command line' }, () => editVideo(id, { summary: 'By the command line' }));
    await as('inbox', () => editVideo(id, { language: 'en' }));
    expect(await by(id)).toEqual([MANAGER, MANAGER, 'inbox']);
    const via = await database()('changes').where({ subject: id }).orderBy('id').pluck('via');
    expect(via).toEqual([null, 'command line', null]);
    expect(actorNow()).toEqual({ who: MANAGER });
  });

  it('undoes what is their own, in its order, and nobody else’s', async () => {
    const id = await video();
    await as('person:isa', () => editVideo(id, { title: 'By Isa' }));
    await as('person:tom', () => editVideo(id, { summary: 'By Tom' }));
    const canUndo = async (who: Who) => {
      let can = false;
      await as(who, async () => {
        can = (await lookAtSheet(id)).canUndo;
      });
      return can;
    };
    expect([await canUndo('person:isa'), await canUndo('person:ned')]).toEqual([true, false]);
    await as('person:isa', () => undo(id));
    expect(await recordOf(id)).toMatchObject({ title: 'Keel', summary: 'By Tom' });
    await as('person:isa', () => redo(id));
    expect(await recordOf(id)).toMatchObject({ title: 'By Isa', summary: 'By Tom' });
    await as('person:ned', () => undo(id));
    expect(await recordOf(id)).toMatchObject({ title: 'By Isa', summary: 'By Tom' });
  });

  it('does not undo over what somebody else has changed since, and says so', async () => {
    const id = await video();
    await as('person:isa', () => editVideo(id, { title: 'By Isa' }));
    await as('person:tom', () => editVideo(id, { title: 'By Tom' }));
    const stepped = await askedBy({ who: 'person:isa' }, newId(), () => undo(id));
    expect(stepped?.kept).toEqual(['It stays as it is now: it was changed since.']);
    expect((await recordOf(id)).title).toBe('By Tom');
    // It can be neither undone nor made again any more.
    expect(await askedBy({ who: 'person:isa' }, newId(), () => undo(id))).toBeUndefined();
    await as('person:tom', () => undo(id));
    expect((await recordOf(id)).title).toBe('By Isa');
  });

  it('undoes what was made by nobody’s hand', async () => {
    const id = await video();
    await as('worker', () => editVideo(id, { title: 'By itself' }));
    await as('inbox', () => editVideo(id, { summary: 'From the inbox' }));
    await as('person:isa', () => undo(id));
    await as('person:isa', () => undo(id));
    expect(await recordOf(id)).toMatchObject({ title: 'Keel', summary: '' });
    await as('person:isa', () => redo(id));
    expect((await recordOf(id)).title).toBe('By itself');
  });

  it('undoes what was made before anybody was written down', async () => {
    const id = await video();
    await editVideo(id, { title: 'Of old' });
    await database()('changes').where({ subject: id }).update({ actor: null });
    await undo(id);
    expect((await recordOf(id)).title).toBe('Keel');
  });
});

describe('an act on many', () => {
  const signal = new AbortController().signal;
  const done = (id: string) => doMany(id, () => undefined, signal);

  it('is done as who asked for it, whoever works it off, and taken back over what was changed since in other fields', async () => {
    const ids = await Promise.all([video('One'), video('Two'), video('Three')]);
    let act = '';
    await as('person:isa', async () => {
      act = (await askOfMany({ ids, act: { do: 'set', field: 'licence', value: 'creative commons' } })).id;
    });
    await actAs({ who: 'worker' }, () => done(act));
    expect((await manyActById(database(), act))?.by).toEqual({ who: 'person:isa' });
    for (const id of ids) expect(await by(id)).toEqual(['person:isa']);
    const [one = '', two = '', three = ''] = ids;
    // Another field, the same field, nothing.
    await as('person:tom', () => editVideo(one, { title: 'Changed since' }));
    await as('person:tom', () => editVideo(two, { licence: 'all rights reserved' }));
    await as('person:isa', () => undoMany(act));
    await actAs({ who: 'worker' }, () => done(act));
    expect(await recordOf(one)).toEqual({ title: 'Changed since', summary: '' });
    expect(await recordOf(two)).toMatchObject({ licence: 'all rights reserved' });
    expect(await recordOf(three)).toEqual({ title: 'Three', summary: '' });
    const view = (await lookAtManyActs()).find(({ id }) => id === act);
    expect(view).toMatchObject({ state: 'undone', undone: 2, kept: 1 });
  });
});

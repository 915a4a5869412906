import { describe, expect, it } from 'vitest';
import { PLAIN_DECLARATIONS } from '@/core/declarations';
import { SiteError } from './contract';
import { fromLanternfold, toLanternfold } from './lanternfold/declared';
import { pipwireExplains } from './pipwire/adapter';
import { evenIfGone, shownChapter, stageShape, stateOfStage } from './stages';
import { stallmarketExplains } from './stallmarket/adapter';

describe('how far a site is', () => {
  const told = (stage: Parameters<typeof stateOfStage>[0]['stage'], reason?: string) =>
    stateOfStage({ stage, progress: 0.25, reason }, 'Testfold', { queued: 'in the queue', first: 'first version' });

  it('is said in its words, with a share where one is known', () => {
    expect(told('receiving')).toEqual({ stage: 'receiving' });
    expect(told('queued')).toEqual({ stage: 'processing', says: 'in the queue', fraction: undefined });
    expect(told('first')).toEqual({ stage: 'processing', says: 'first version', fraction: 0.25 });
    expect(told('full')).toEqual({ stage: 'processing', says: 'being prepared', fraction: 0.25 });
    expect(told('ready')).toEqual({ stage: 'ready' });
    expect(stateOfStage({ stage: 'full', progress: 1, reason: null }, 'Testfold', 'at it')).toMatchObject({
      says: 'at it',
    });
  });

  it('names the site where that gives no reason', () => {
    expect(told('failed', 'no picture in it')).toEqual({ stage: 'failed', reason: 'no picture in it' });
    expect(told('failed')).toEqual({ stage: 'failed', reason: 'Testfold does not say why' });
  });

  it('is refused where a site says something unheard of', async () => {
    expect(await stageShape().isValid('first')).toBe(true);
    expect(await stageShape().isValid('nearly')).toBe(false);
    expect(await stageShape().isValid(undefined)).toBe(false);
  });
});

describe('what a site shows', () => {
  it('of a chapter, is its whole second, in the form that the length asks for', () => {
    expect(shownChapter(75.9, 'Bolts', 100)).toEqual({ stamp: '1:15', title: 'Bolts' });
    expect(shownChapter(75.9, 'Bolts', 3600).stamp).toBe('0:01:15');
    expect(shownChapter(3600, 'Late', undefined).stamp).toBe('1:00:00');
  });

  it('of what is declared, comes back as it went', () => {
    const declared = { ...PLAIN_DECLARATIONS, forChildren: true, comments: 'hold doubtful', place: 'Yard' } as const;
    const { credits: _credits, products: _products, ...taken } = declared;
    expect(fromLanternfold(toLanternfold(declared))).toEqual(taken);
    for (const licence of ['all rights reserved', 'creative commons'] as const) {
      for (const adverts of ['off', 'by context', 'by interest'] as const) {
        expect(fromLanternfold(toLanternfold({ licence, adverts }))).toMatchObject({ licence, adverts });
      }
    }
    expect(toLanternfold({}).madeForChildren).toBeUndefined();
  });
});

describe('removing', () => {
  it('is well where it is gone already, and not where it is refused', async () => {
    await expect(evenIfGone(Promise.resolve())).resolves.toBeUndefined();
    await expect(evenIfGone(Promise.reject(new SiteError('missing', 'gone')))).resolves.toBeUndefined();
    await expect(evenIfGone(Promise.reject(new SiteError('permission', 'no')))).rejects.toThrow('no');
    await expect(evenIfGone(Promise.reject(new TypeError('slip')))).rejects.toThrow('slip');
  });
});

describe('errors in a site’s own form', () => {
  it('are read where they are of it', () => {
    expect(pipwireExplains({ pip: 'no', why: 'A post needs words' })).toBe('A post needs words');
    const errors = [{ code: 'A', message: 'One' }, { code: 'B' }, { code: 'C', message: 'Two' }];
    expect(stallmarketExplains({ ok: false, errors })).toBe('One; Two');
  });

  it('say nothing where they are not', () => {
    for (const body of [undefined, null, {}, { errors: [] }, { errors: [{}] }, 'text']) {
      expect(pipwireExplains(body)).toBeUndefined();
      expect(stallmarketExplains(body)).toBeUndefined();
    }
  });
});

import { describe, expect, it } from 'vitest';
import { PRIVACIES } from '../delivery';
import { isWider, mayGoToEnd, narrower, privacyBeforeProof } from './end';

describe('who may see a video', () => {
  it('is wider from private over link to everyone', () => {
    expect(isWider('everyone', 'link')).toBe(true);
    expect(isWider('link', 'private')).toBe(true);
    expect(isWider('private', 'private')).toBe(false);
    expect(isWider('private', 'everyone')).toBe(false);
  });

  it('the narrower of two is never wider than either', () => {
    for (const a of PRIVACIES) {
      for (const b of PRIVACIES) {
        expect(isWider(narrower(a, b), a)).toBe(false);
        expect(isWider(narrower(a, b), b)).toBe(false);
      }
    }
  });

  it('is nobody before it is proofed, whatever the end', () => {
    for (const end of PRIVACIES) expect(privacyBeforeProof(undefined, end)).toBe('private');
  });

  it('is never wider than the end, and never wider than it was opened to', () => {
    for (const confirmedTo of PRIVACIES) {
      for (const end of PRIVACIES) {
        expect(isWider(privacyBeforeProof(confirmedTo, end), end)).toBe(false);
        expect(isWider(privacyBeforeProof(confirmedTo, end), confirmedTo)).toBe(false);
      }
    }
  });
});

describe('whether it goes on to its end once it is read back', () => {
  const plain = { confirmedTo: undefined, opensAlone: false, letGo: false } as const;

  it('private is reached without a word', () => {
    expect(mayGoToEnd({ ...plain, end: 'private' })).toBe(true);
  });

  it('anything wider waits for a word, unless it opens by itself or the word was given', () => {
    expect(mayGoToEnd({ ...plain, end: 'everyone' })).toBe(false);
    expect(mayGoToEnd({ ...plain, end: 'link' })).toBe(false);
    expect(mayGoToEnd({ ...plain, end: 'everyone', opensAlone: true })).toBe(true);
    expect(mayGoToEnd({ ...plain, end: 'everyone', letGo: true })).toBe(true);
  });

  it.each(PRIVACIES)('a video opened to everyone that is to be for %s needs no word', (end) => {
    expect(mayGoToEnd({ ...plain, end, confirmedTo: 'everyone' })).toBe(true);
  });

  it('a live private video that is to be for everyone asks where it was to ask', () => {
    expect(mayGoToEnd({ ...plain, end: 'everyone', confirmedTo: 'private' })).toBe(false);
    expect(mayGoToEnd({ ...plain, end: 'everyone', confirmedTo: 'private', opensAlone: true })).toBe(true);
  });
});

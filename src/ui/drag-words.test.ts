import type { Active, Over } from '@dnd-kit/core';
import { describe, expect, it } from 'vitest';
import { dragWords } from './drag-words';

const active = { id: '01a2' } as Active;
const over = { id: '2026-12-04' } as Over;
const event = { active, activatorEvent: new Event('key'), collisions: null, delta: { x: 0, y: 0 } };

describe('what a drag says aloud', () => {
  const words = dragWords({ what: () => 'the tag plane', where: () => 'place 2 of 3' });

  it('are names and places, and never ids', () => {
    expect(words.onDragStart(event)).toBe('You have picked up the tag plane.');
    expect(words.onDragOver({ ...event, over })).toBe('The tag plane is at place 2 of 3.');
    expect(words.onDragOver({ ...event, over: null })).toBe('The tag plane is nowhere it can stay.');
    expect(words.onDragEnd({ ...event, over })).toBe('The tag plane was put at place 2 of 3.');
    expect(words.onDragEnd({ ...event, over: null })).toBe('The tag plane stays where it was.');
    expect(words.onDragCancel({ ...event, over: null })).toBe('The tag plane stays where it was.');
  });
});

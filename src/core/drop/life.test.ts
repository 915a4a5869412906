import { describe, expect, it } from 'vitest';
import { boardGroup } from './board';
import {
  DROP_STATES,
  type DropState,
  goesUpAnew,
  isCarried,
  lastStop,
  MOVES,
  type MoveName,
  mayAccept,
  mayMove,
  STOPS,
  stateAfter,
  stopsBehind,
  WORKING_STATES,
  type WorkingState,
} from './life';

const moves = Object.keys(MOVES) as MoveName[];
interface Situation {
  state: DropState;
  snag?: { at: WorkingState };
}

/** Every state as a drop can be in it: a snag with each place that it can have come up in. */
const situations: Situation[] = [
  ...DROP_STATES.filter((state) => state !== 'snag').map((state) => ({ state })),
  ...WORKING_STATES.map((at) => ({ state: 'snag' as const, snag: { at } })),
];

describe('the life of a drop', () => {
  it('has a way out of every state', () => {
    for (const { state, snag } of situations) {
      expect(
        moves.some((move) => mayMove(move, state, snag)),
        `${state} ${snag?.at ?? ''}`,
      ).toBe(true);
    }
  });

  it('lets every state be reached from a draft', () => {
    const reached = new Set<DropState>(['draft']);
    for (let round = 0; round < DROP_STATES.length; round += 1) {
      for (const { state, snag } of situations) {
        if (!reached.has(state)) continue;
        for (const move of moves) if (mayMove(move, state, snag)) reached.add(stateAfter(move, state, snag));
      }
    }
    expect([...reached].sort()).toEqual([...DROP_STATES].sort());
  });

  it('never skips a stop', () => {
    for (const { state, snag } of situations) {
      for (const move of moves) {
        // The live video that stays has passed its stops before.
        if (move === 'keepFormer' || !mayMove(move, state, snag)) continue;
        const after = stateAfter(move, state, snag);
        const [before, then] = [stopsBehind(state, snag), stopsBehind(after, snag)];
        expect(then - before, `${move} from ${state}`).toBeLessThanOrEqual(1);
      }
    }
  });

  it('passes the six stops in order on the way that nothing disturbs', () => {
    const way: MoveName[] = ['send', 'packed', 'landed', 'settled', 'cleared', 'proofedAndOpening', 'opened'];
    let state: DropState = 'draft';
    const passed = way.map((move) => {
      state = stateAfter(move, state);
      return lastStop(state);
    });
    expect(passed).toEqual([undefined, ...STOPS]);
  });

  it('lets the worker move only what is the worker’s, and a person only what waits for one', () => {
    for (const move of moves) {
      const { by, from } = MOVES[move];
      if (by === 'worker') expect([...from].every(isCarried), move).toBe(true);
    }
  });

  it('takes a video from sight from wherever it may be seen, and reads back what had a snag', () => {
    for (const state of ['live', 'opening', 'held'] as const) expect(stateAfter('close', state)).toBe('closing');
    expect(stateAfter('close', 'snag', { at: 'proofing' })).toBe('closing');
    expect(mayMove('close', 'snag', { at: 'landing' })).toBe(false);
    expect(stateAfter('closed', 'closing')).toBe('live');
    expect(stateAfter('closedUnproofed', 'closing')).toBe('proofing');
  });

  it('lets a person accept only what leaves a choice', () => {
    const snag = { at: 'clearing' as const, what: '', remedy: '' };
    expect(mayAccept({ ...snag, kind: 'rights', asks: 'income' })).toBe(true);
    expect(mayAccept({ ...snag, kind: 'rights', asks: 'silence' })).toBe(true);
    expect(mayAccept({ ...snag, kind: 'rights', asks: 'closing' })).toBe(false);
    expect(mayAccept({ ...snag, kind: 'rights' })).toBe(false);
    const proofed = { ...snag, at: 'proofing' as const };
    expect(mayAccept({ ...proofed, kind: 'difference', parts: ['title'] })).toBe(true);
    expect(mayAccept({ ...proofed, kind: 'difference', parts: ['title', 'privacy'] })).toBe(false);
    expect(mayAccept({ ...snag, kind: 'difference', at: 'held' })).toBe(false);
    for (const kind of ['file', 'permission', 'refused', 'processing', 'review', 'missing'] as const) {
      expect(mayAccept({ ...snag, kind }), kind).toBe(false);
    }
    expect(mayAccept(undefined)).toBe(false);
  });

  it('goes back to where a snag came up, and takes an answer only to the question asked', () => {
    expect(stateAfter('tryAgain', 'snag', { at: 'settling' })).toBe('settling');
    expect(stateAfter('tryAgain', 'snag', { at: 'clearing' })).toBe('clearing');
    expect(() => stateAfter('tryAgain', 'snag')).toThrow();
    expect(() => stateAfter('opened', 'held')).toThrow(/held/);
  });
});

describe('the groups of the Board', () => {
  it('put what needs a person first', () => {
    expect(boardGroup({ cut: 'ready', drops: ['live', 'snag', 'landing'] })).toBe('needs you');
    expect(boardGroup({ cut: 'refused', drops: [] })).toBe('needs you');
    expect(boardGroup({ cut: 'ready', drops: ['live', 'landing'] })).toBe('on the way');
    expect(boardGroup({ cut: 'arriving', drops: [] })).toBe('on the way');
    expect(boardGroup({ cut: 'ready', drops: ['live', 'held'] })).toBe('waiting');
    expect(boardGroup({ cut: 'ready', drops: ['live', 'draft'] })).toBe('live lately');
    expect(boardGroup({ cut: 'ready', drops: ['draft'] })).toBe('on the desk');
    expect(boardGroup({ cut: 'stalled', drops: [] })).toBe('needs you');
    expect(boardGroup({ cut: 'ready', drops: ['live', 'overdue'] })).toBe('needs you');
  });
});

describe('a drop with a snag that is tried again', () => {
  it('goes up as a new video where its site has lost it, could not process it, or has another file than the one in use', () => {
    for (const hasOtherFile of [true, false]) {
      expect(goesUpAnew({ kind: 'missing', at: 'proofing' }, hasOtherFile)).toBe(true);
      expect(goesUpAnew({ kind: 'processing', at: 'settling' }, hasOtherFile)).toBe(true);
      expect(goesUpAnew({ kind: 'missing', at: 'removing' }, hasOtherFile)).toBe(false);
      expect(goesUpAnew({ kind: 'processing', at: 'closing' }, hasOtherFile)).toBe(false);
      expect(goesUpAnew({ kind: 'difference', at: 'proofing' }, hasOtherFile)).toBe(false);
      expect(goesUpAnew({ kind: 'file', at: 'packing' }, hasOtherFile)).toBe(false);
      expect(goesUpAnew({ kind: 'rights', at: 'clearing' }, hasOtherFile)).toBe(hasOtherFile);
      expect(goesUpAnew({ kind: 'review', at: 'clearing' }, hasOtherFile)).toBe(hasOtherFile);
      expect(goesUpAnew({ kind: 'file', at: 'held' }, hasOtherFile)).toBe(hasOtherFile);
    }
  });
});

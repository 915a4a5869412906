import type { Difference, PartName } from '../parts';

/** The six places that every drop passes, in order. */
export const STOPS = ['packed', 'landed', 'settled', 'cleared', 'proofed', 'live'] as const;
export type Stop = (typeof STOPS)[number];

/** States in which the worker has something to do. */
export const WORKING_STATES = [
  'packing',
  'landing',
  'settling',
  'clearing',
  'proofing',
  'opening',
  'closing',
  'removing',
] as const;
export type WorkingState = (typeof WORKING_STATES)[number];

/** States in which the worker looks after a drop: it carries it, or sees to it that it opens at its moment. */
export const CARRIED_STATES = [...WORKING_STATES, 'held'] as const;
export type CarriedState = (typeof CARRIED_STATES)[number];

/** Every state of a drop. */
export const DROP_STATES = ['draft', ...CARRIED_STATES, 'live', 'snag', 'removed'] as const;
export type DropState = (typeof DROP_STATES)[number];

/** What a snag came of. */
export const SNAG_KINDS = [
  'file',
  'permission',
  'refused',
  'processing',
  'rights',
  'review',
  'difference',
  'missing',
  'missed',
] as const;
export type SnagKind = (typeof SNAG_KINDS)[number];

/**
 * What the owner of music or pictures asks for: a share of what the video earns, silence where it is heard, or that nobody
 * sees it, anywhere or in some countries.
 */
export const RIGHTS_ASKS = ['income', 'silence', 'closing in countries', 'closing'] as const;
export type RightsAsk = (typeof RIGHTS_ASKS)[number];

/** A snag: where the drop stood, what is wrong, and what a person can do. */
export interface Snag {
  at: CarriedState;
  kind: SnagKind;
  what: string;
  remedy: string;
  /** Of a rights match: what its owner asks, where the site says so, and who that is. */
  asks?: RightsAsk;
  owner?: string;
  /** Of a difference: the parts in which the site shows something else, and the fields with both values of each. */
  parts?: PartName[];
  differences?: Difference[];
}

/** A version of a video that a site has made ready: pictures of so many lines, or the thumbnail. ISO 8601 in UTC. */
export interface SiteVersion {
  of: 'picture' | 'thumbnail';
  lines?: number;
  readyAt: string;
}

/** Who makes a move: the worker on its own, or a person. */
export type Mover = 'worker' | 'person';

interface Move {
  from: readonly DropState[];
  /** Where it leads; 'where it stood' is the state that the snag came up in. */
  to: DropState | 'where it stood';
  by: Mover;
  /** Of a snag: only with one that came up in one of these states. */
  snagAt?: readonly CarriedState[];
}

const BEFORE_REMOVAL = [
  'packing',
  'landing',
  'settling',
  'clearing',
  'proofing',
  'held',
  'opening',
  'closing',
  'live',
  'snag',
] as const;

const BEFORE_LIVE = ['packing', 'landing', 'settling', 'clearing', 'proofing', 'held', 'snag'] as const;

/** The life of a drop: every move there is. Nothing else decides what may follow what. */
export const MOVES = {
  send: { from: ['draft', 'removed'], to: 'packing', by: 'person' },
  packed: { from: ['packing'], to: 'landing', by: 'worker' },
  landed: { from: ['landing'], to: 'settling', by: 'worker' },
  settled: { from: ['settling'], to: 'clearing', by: 'worker' },
  cleared: { from: ['clearing'], to: 'proofing', by: 'worker' },
  proofedAndHeld: { from: ['proofing'], to: 'held', by: 'worker' },
  proofedAndOpening: { from: ['proofing'], to: 'opening', by: 'worker' },
  // Its moment has come: the set time, that of all together, or a person's word.
  due: { from: ['held'], to: 'opening', by: 'worker' },
  // What is meant has changed since it was proofed, and its moment is near.
  outdated: { from: ['held'], to: 'proofing', by: 'worker' },
  opened: { from: ['opening'], to: 'live', by: 'worker' },
  // What is meant has changed since it was proofed.
  notToOpen: { from: ['opening'], to: 'proofing', by: 'worker' },
  revise: { from: ['held', 'live'], to: 'proofing', by: 'person' },
  close: {
    from: ['opening', 'live', 'snag', 'held'],
    to: 'closing',
    by: 'person',
    snagAt: ['proofing', 'held', 'opening'],
  },
  closed: { from: ['closing'], to: 'live', by: 'worker' },
  // What had a snag is read back once more, closed.
  closedUnproofed: { from: ['closing'], to: 'proofing', by: 'worker' },
  snag: { from: CARRIED_STATES, to: 'snag', by: 'worker' },
  tryAgain: { from: ['snag'], to: 'where it stood', by: 'person' },
  acceptAndHold: { from: ['snag'], to: 'held', by: 'person', snagAt: ['proofing'] },
  acceptAndOpen: { from: ['snag'], to: 'opening', by: 'person', snagAt: ['proofing'] },
  sendAnew: { from: ['snag'], to: 'packing', by: 'person' },
  // A better file goes up beside the live video, and takes its place once it is checked.
  sendInPlace: { from: ['live'], to: 'packing', by: 'person' },
  // The live video stays after all; it is read back once more.
  keepFormer: { from: BEFORE_LIVE, to: 'proofing', by: 'person' },
  remove: { from: BEFORE_REMOVAL, to: 'removing', by: 'person' },
  gone: { from: ['removing'], to: 'removed', by: 'worker' },
} as const satisfies Record<string, Move>;

export type MoveName = keyof typeof MOVES;

/**
 * Whether a drop with a snag goes up as a new video where it is tried again: what its site has lost or could not process, and
 * what has another file by now.
 * @param hasOtherFile whether the file in use is another than the one at its site
 */
export function goesUpAnew(snag: Pick<Snag, 'kind' | 'at'>, hasOtherFile: boolean): boolean {
  const { kind, at } = snag;
  if (at === 'removing' || at === 'closing') return false;
  if (kind === 'missing' || kind === 'processing') return true;
  return hasOtherFile && (kind === 'rights' || kind === 'review' || (kind === 'file' && at === 'held'));
}

/** A move that the life of a drop does not have. */
export class MoveRefused extends Error {
  override name = 'MoveRefused';
}

/**
 * The state that a move leads to.
 * @param snag the drop's snag, where it has one
 * @throws MoveRefused where the move may not follow
 */
export function stateAfter(move: MoveName, state: DropState, snag?: Pick<Snag, 'at'>): DropState {
  const { from, to, snagAt }: Move = MOVES[move];
  if (!from.includes(state)) throw new MoveRefused(`A drop that is ${state} cannot take the move “${move}”`);
  if (state === 'snag' && snagAt !== undefined && !(snag && snagAt.includes(snag.at))) {
    const answers = snagAt.join(' or ');
    throw new MoveRefused(`“${move}” answers a snag found while ${answers}, not while ${snag?.at ?? 'nothing'}`);
  }
  if (to !== 'where it stood') return to;
  if (!snag) throw new MoveRefused('A snag has to say where it came up');
  return snag.at;
}

/**
 * Whether a move may follow now.
 * @param snag where it stands, for moves that go back to there
 */
export function mayMove(move: MoveName, state: DropState, snag?: Pick<Snag, 'at'>): boolean {
  try {
    stateAfter(move, state, snag);
    return true;
  } catch {
    return false;
  }
}

const STOPS_BEHIND: Record<Exclude<DropState, 'snag'>, number> = {
  draft: 0,
  packing: 0,
  landing: 1,
  settling: 2,
  clearing: 3,
  proofing: 4,
  held: 5,
  opening: 5,
  closing: 5,
  live: 6,
  removing: 0,
  removed: 0,
};

/** How many of the six stops lie behind a drop. */
export function stopsBehind(state: DropState, snag?: Pick<Snag, 'at'>): number {
  return state === 'snag' ? STOPS_BEHIND[snag?.at ?? 'packing'] : STOPS_BEHIND[state];
}

/** The last stop that a drop has passed. */
export function lastStop(state: DropState, snag?: Pick<Snag, 'at'>): Stop | undefined {
  return STOPS[stopsBehind(state, snag) - 1];
}

/**
 * Whether a person may accept what was found. Only a match whose owner leaves a choice and a difference are a matter of
 * opinion; that more people may see it than was meant never is.
 */
export function mayAccept(snag: Snag | undefined): boolean {
  if (snag?.kind === 'rights') return snag.asks !== undefined && snag.asks !== 'closing';
  return snag?.kind === 'difference' && snag.at === 'proofing' && !snag.parts?.includes('privacy');
}

/** Whether a drop in this state is at its site, or on its way there. */
export const isSent = (state: DropState): boolean => state !== 'draft' && state !== 'removed';

/** Whether the worker looks after a drop in this state. */
export const isCarried = (state: DropState): state is CarriedState =>
  (CARRIED_STATES as readonly DropState[]).includes(state);

/** Whether a drop in this state moves: the worker carries it. */
export function isWorking(state: DropState): state is WorkingState {
  return (WORKING_STATES as readonly DropState[]).includes(state);
}

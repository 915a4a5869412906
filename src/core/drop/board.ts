import { type DropState, isWorking } from './life';

/** The groups of the Board, in the order in which they stand there. */
export const BOARD_GROUPS = ['needs you', 'on the way', 'waiting', 'on the desk', 'live lately'] as const;
export type BoardGroup = (typeof BOARD_GROUPS)[number];

/**
 * The orders in which the Board's videos can stand: by what needs a person, the newest first, by title, or by how their drops
 * stand on one channel.
 */
export const BOARD_ORDERS = ['needs', 'newest', 'title', 'channel'] as const;
export type BoardOrder = (typeof BOARD_ORDERS)[number];

/** What of a record the Board can look for because it is not there. */
export const BOARD_LACKS = ['picture', 'summary', 'captions', 'series', 'channel'] as const;
export type BoardLack = (typeof BOARD_LACKS)[number];

const RANKS: Partial<Record<DropState, number>> = { snag: 0, held: 2, draft: 3, live: 4, removed: 5 };
const RANK_WORKING = 1;
const RANKLESS = 6;

/** Where a drop stands among others of its channel: what needs a person first, and last the videos without one. */
export function stateRank(state: DropState | undefined): number {
  return state === undefined ? RANKLESS : (RANKS[state] ?? RANK_WORKING);
}

/** What the Board sorts a video by. */
export interface BoardFacts {
  /** 'stalled' is one that nothing has come of for too long; 'set aside' one that could not be read again and again. */
  cut: 'none' | 'arriving' | 'stalled' | 'reading' | 'set aside' | 'ready' | 'refused';
  /** 'overdue' is one that its site puts off for longer than it should; 'matched' a live one with a rights match to settle. */
  drops: readonly (DropState | 'overdue' | 'matched')[];
}

/** The group of a video: what needs a person comes before what moves, that before what waits. */
export function boardGroup({ cut, drops }: BoardFacts): BoardGroup {
  if (cut === 'refused' || cut === 'stalled' || cut === 'set aside') return 'needs you';
  if (drops.some((state) => state === 'snag' || state === 'overdue' || state === 'matched')) return 'needs you';
  if (
    cut === 'arriving' ||
    cut === 'reading' ||
    drops.some((state) => state !== 'overdue' && state !== 'matched' && isWorking(state))
  )
    return 'on the way';
  if (drops.includes('held')) return 'waiting';
  const sent = drops.filter((state) => state !== 'draft' && state !== 'removed');
  return sent.length > 0 ? 'live lately' : 'on the desk';
}

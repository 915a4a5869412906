import { type End, isWider } from '@/core/drop';
import { goesToEnd, meantWords } from '@/desk/drop/meant';
import { recordOf } from '@/desk/drop/record';
import { database } from '@/store/database';
import { showTo } from './show-to';
import type { Step } from './step';

const LIVE: Record<End, string> = {
  everyone: 'Live: open to everyone',
  link: 'Live: open by link only',
  private: 'Live: private',
};

/** Towards live: shown to those who are to see it, and only when the site says so. */
export const open: Step = async (context) => {
  const { drop, channel, record, profile, keep } = context;
  const meant = meantWords(record, channel, drop, profile);
  // What was changed since it was proofed is proofed first, or waits for a person's word.
  if (meant.asText !== drop.sentWords || !goesToEnd(meant, drop)) {
    return { move: 'notToOpen', says: 'Not opened yet: it was changed meanwhile' };
  }
  // Noted first: from here on it may be open, whatever happens to this process.
  await keep({ openedTo: meant.end });
  const notYet = await showTo(context, meant.end);
  if (notYet) return notYet;
  // Set to fewer people while the site was being asked: taken back at once.
  const now = meantWords(await recordOf(database(), drop.videoId), channel, drop, profile);
  if (isWider(meant.end, now.end))
    return { move: 'notToOpen', says: 'Taken back: it was set to fewer people meanwhile' };
  return {
    move: 'opened',
    says: LIVE[meant.end],
    fields: { liveAt: drop.liveAt ?? new Date(), openAsked: false },
  };
};

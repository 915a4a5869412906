import { reasonsNotTaken } from '@/core/delivery';
import { STOP_WORDS } from '@/core/drop';
import { database } from '@/store/database';
import { keepRendition } from '@/store/renditions';
import { removeLeftBehind } from './left-behind';
import { SnagFound, type Step } from './step';

/** Towards packed: the file for the site is ready. A cut that the site takes as it is needs no other. */
export const pack: Step = async (context) => {
  const {
    record: { cut },
    profile,
  } = context;
  await removeLeftBehind(context);
  if (!cut) throw new SnagFound('file', 'There is no file', 'Add the video file, then try again');
  if (cut.state === 'refused') {
    throw new SnagFound('file', cut.refusal ?? 'The cut cannot be used', 'Replace the file, then try again');
  }
  if (cut.state !== 'ready' || !cut.facts || !cut.digest) {
    const says = cut.state === 'arriving' ? 'Waits for the cut to arrive' : 'Waits while the cut is read';
    return { again: 1, fields: { waiting: says } };
  }
  const reasons = reasonsNotTaken(cut.facts, profile);
  if (reasons.length > 0) {
    throw new SnagFound(
      'file',
      reasons.join('. '),
      `Replace the file with one that ${profile.name} takes, then try again`,
    );
  }
  const { fileKey, size, digest } = cut;
  const rendition = await keepRendition(database(), { cutId: cut.id, settings: 'as it is', fileKey, size, digest });
  const fields = { renditionId: rendition.id, bytesTotal: size, bytesSent: 0 };
  return { move: 'packed', says: `${STOP_WORDS.packed}: the file goes as it is`, fields };
};

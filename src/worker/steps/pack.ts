import { STOP_WORDS } from '@/core/drop';
import { ANEW } from '@/desk/drop/send';
import { linksLeft } from '@/store/drop/shape';
import { fileForDrop } from './file-for-drop';
import { idAtSite } from './id-at-site';
import { removeLeftBehind } from './left-behind';
import type { Step, StepContext, StepEnd } from './step';

/** Towards packed: the file for the site is ready. */
export const pack: Step = async (context) => {
  const { drop } = context;
  await removeLeftBehind(context);
  const file = await fileForDrop(context);
  if ('again' in file) return file;
  const { id, size } = file.rendition;
  const wentEarly = drop.begunWith !== undefined;
  if (wentEarly && drop.renditionId !== id) return await leaveEarly(context);
  return {
    move: 'packed',
    says: `${STOP_WORDS.packed}: ${file.says}`,
    fields: { renditionId: id, bytesTotal: size, bytesSent: wentEarly ? drop.bytesSent : 0 },
  };
};

/** What went up early is not what goes out: file settings, or the file, were changed since. It is removed, and another goes. */
async function leaveEarly(context: StepContext): Promise<StepEnd> {
  const { drop, keep } = context;
  const there = await idAtSite(drop, context);
  await keep({ ...ANEW, leftBehind: there ? [there] : undefined, round: drop.round + 1, formerLinks: linksLeft(drop) });
  return { again: 0, fields: { waiting: undefined } };
}

import { isWider } from '@/core/drop';
import { meantWords } from '@/desk/drop/meant';
import { transaction } from '@/store/database';
import { forgetGiven } from '@/store/drop/parts';
import { linksLeft } from '@/store/drop/shape';
import type { StepContext } from './step';

/** Puts the better file in the place of the live video's, where the site can: from here on the drop is that video again. */
export async function swapFile(context: StepContext): Promise<void> {
  const { drop, adapter, session, keep } = context;
  const { former } = drop;
  if (former?.ends !== 'swap' || !drop.siteVideoId) return;
  await adapter.takePlace?.(session, former.siteVideoId, drop.siteVideoId);
  const { siteVideoId, link, openedTo } = former;
  const now = {
    ...{ siteVideoId, link, openedTo, confirmedTo: openedTo },
    ...{ former: undefined, versions: undefined, formerLinks: linksLeft(drop) },
  };
  await transaction(async (trx) => {
    await keep(now, trx);
    // Its parts are those of before until they are given once more.
    await forgetGiven(trx, drop);
  });
  Object.assign(drop, now);
}

/** Closes or removes the video whose place is taken, once the new one is open; its link is remembered. */
export async function retireFormer({ drop, adapter, session, keep }: StepContext): Promise<void> {
  const { former } = drop;
  if (!former || former.ends === 'swap') return;
  if (former.ends === 'remove') await adapter.remove(session, former.siteVideoId);
  else await adapter.showTo(session, former.siteVideoId, 'private');
  const formerLinks = linksLeft({ ...drop, link: former.link });
  await keep({ former: undefined, formerLinks });
  Object.assign(drop, { former: undefined, formerLinks });
}

/** Shows the live video to fewer people where fewer are to see it now, though a better file is still on its way. */
export async function narrowFormer(context: StepContext): Promise<void> {
  const { drop, record, channel, profile, adapter, session, keep } = context;
  const { former } = drop;
  if (!former?.openedTo) return;
  const { end, password } = meantWords(record, channel, drop, profile);
  if (!isWider(former.openedTo, end)) return;
  await adapter.showTo(session, former.siteVideoId, end, password);
  // Until the site says so itself, it is asked again with each step.
  const { privacy } = (await adapter.look(session, former.siteVideoId)).status;
  if (isWider(privacy, end)) return;
  const narrowed = { ...former, openedTo: end };
  await keep({ former: narrowed });
  drop.former = narrowed;
}

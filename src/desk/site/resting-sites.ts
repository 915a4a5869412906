import { siteIds } from '@/sites/registry';
import { database, transaction } from '@/store/database';
import { hastenPutOff } from '@/store/drop/claims';
import { allChannels } from '@/store/site/channels';
import { restingSites, trySiteNow } from '@/store/site/circuits';
import { DeskError } from '../desk-error';
import { log } from '../log';
import { site } from './session';

/** A site that is left alone for a while, since it has failed again and again; times are ISO 8601 in UTC. */
export interface RestingSiteView {
  id: string;
  name: string;
  since: string;
  nextTryAt: string;
  /** What it said last, or what was found instead. */
  says: string;
}

/** The sites that rest now. */
export async function lookAtRestingSites(): Promise<RestingSiteView[]> {
  return (await restingSites(database())).map(({ site: id, since, nextTryAt, says }) => ({
    id,
    name: site(id).profile.name,
    says,
    since: since.toISOString(),
    nextTryAt: nextTryAt.toISOString(),
  }));
}

/** Has a site that rests tried at once, with everything that waits for it. @throws DeskError where there is no such site */
export async function tryRestingSite(id: string): Promise<void> {
  if (!siteIds().includes(id)) throw new DeskError('not found', `There is no site called ${id}.`);
  const channels = (await allChannels(database())).filter((channel) => channel.site === id);
  await transaction(async (trx) => {
    await trySiteNow(trx, id);
    await hastenPutOff(
      trx,
      channels.map((channel) => channel.id),
    );
  });
  log.info({ site: id }, 'a resting site is tried at once');
}

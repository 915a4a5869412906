import { database } from '@/store/database';
import { sealCalendarTokenAnew } from '@/store/notices/calendar-address';
import { sealNoticeSecretsAnew } from '@/store/notices/notice-settings';
import { accountsToSealAnew, sealAccountAnew } from '@/store/site/accounts';
import { addVaultKey } from '@/store/vault';
import { log } from '../log';

/**
 * Renews the key that tokens are sealed with, while everything runs: what was sealed with the former one is sealed anew.
 * How many accounts there were is returned.
 */
export async function renewKey(): Promise<number> {
  const db = database();
  addVaultKey();
  let count = 0;
  for (const id of await accountsToSealAnew(db)) if (await sealAccountAnew(db, id)) count += 1;
  await sealCalendarTokenAnew(db);
  await sealNoticeSecretsAnew(db);
  log.info({ accounts: count }, 'the key of the vault was renewed');
  return count;
}

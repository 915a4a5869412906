import { renewKey } from '@/desk/account/renew-key';

/** Renews the key of the vault and says for how many accounts. */
export async function renew(): Promise<void> {
  const count = await renewKey();
  process.stdout.write(`The key is new. ${count} ${count === 1 ? 'account is' : 'accounts are'} sealed with it.\n`);
}

import { type Connected, finishConnecting, startConnecting } from '@/desk/account/connect';
import { settings } from '@/store/settings';

/**
 * Signs in at a stand-in as a person would, by its pages, and connects all channels of the account.
 * @param accountId the account that is asked for to sign in again
 */
export async function connectAs(site: string, personId: string, accountId?: string): Promise<Connected> {
  const redirectUri = `http://127.0.0.1:${settings().webPort}/api/connect/${site}/back`;
  const asked = new URL(await startConnecting(site, redirectUri, { accountId }));
  const ask = Object.fromEntries(asked.searchParams);
  const post = (path: string, form: [string, string][], cookie = '') =>
    fetch(new URL(path, asked), {
      method: 'POST',
      redirect: 'manual',
      headers: { cookie },
      body: new URLSearchParams([...Object.entries(ask), ...form] as [string, string][]),
    });
  const signedIn = await post('/oauth/sign-in', [['personId', personId]]);
  const cookie = signedIn.headers.get('set-cookie')?.split(';')[0] ?? '';
  const consent = await (await fetch(asked, { headers: { cookie } })).text();
  const channels = [...consent.matchAll(/name="channel"[^>]*value="([^"]+)"/g)].map((match) => match[1] ?? '');
  const form: [string, string][] = [...channels.map((id): [string, string] => ['channel', id]), ['answer', 'permit']];
  const back = (await post('/oauth/consent', form, cookie)).headers.get('location');
  if (!back) throw new Error(`${site} did not let the demo sign in`);
  return finishConnecting(site, new URL(back), redirectUri);
}

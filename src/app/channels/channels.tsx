'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { type ComponentProps, useEffect } from 'react';
import type { HeldOfAccount } from '@/desk/account/connect';
import type { ChannelsView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { Moment, useZone } from '@/ui/moment';
import { useNotices } from '@/ui/notices';
import { useSure } from '@/ui/sure';
import { heldWords } from './held-words';
import { LineLimits } from './line-limits';

type SiteView = ChannelsView['sites'][number];
type AccountView = SiteView['accounts'][number];

interface ChannelsProps {
  first: ChannelsView;
  /** The account that has just been connected, or what went wrong. */
  connected: string | undefined;
  trouble: string | undefined;
  /** Who was meant to sign in, where it was somebody else. */
  insteadOf: string | undefined;
}

/** Sites, the accounts connected there, and their channels. */
export function Channels({ first, connected, trouble, insteadOf }: ChannelsProps) {
  const { data } = useQuery({
    queryKey: ['channels'],
    queryFn: () => ask<ChannelsView>('/api/channels'),
    initialData: first,
  });
  const notices = useNotices();
  useEffect(() => {
    if (connected && insteadOf)
      notices.trouble(`${connected} has signed in, and not ${insteadOf}, who is still not connected.`);
    else if (connected) notices.say(`${connected} is connected.`);
    if (trouble) notices.trouble(trouble);
    // The address is cleaned, so that a reload does not say it again.
    if (connected || trouble) window.history.replaceState(null, '', '/channels');
  }, [connected, trouble, insteadOf, notices]);
  return (
    <main className="mx-auto max-w-[1040px] px-4 py-5 sm:px-7">
      <h1>Channels</h1>
      <p className="mt-1 mb-4 text-soft">Where your videos go. You sign in once at each site, in its own pages.</p>
      {data.sites.map((site) => (
        <SiteBlock key={site.id} site={site} />
      ))}
      <LineLimits sites={data.sites} />
    </main>
  );
}

function SiteBlock({ site }: { site: SiteView }) {
  const any = site.accounts.some((account) => account.state === 'connected');
  return (
    <section aria-label={site.name} className="enamel mb-4">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-2 border-line border-b px-4 py-3">
        <h2>{site.name}</h2>
        <span className="text-soft">{site.kind}</span>
        <Link href={`/channels/site/${site.id}`} className="textlink text-[13px]">
          Defaults of the site
        </Link>
        <Connect site={site} look={any ? 'quiet' : 'press'} className="ml-auto">
          {any ? 'Connect another account' : `Connect ${site.name}`}
        </Connect>
      </header>
      {site.accounts.length === 0 && (
        <p className="px-4 py-5 text-soft">
          No account is connected. Connecting opens {site.name}, where you sign in, see what is permitted and pick the
          channels.
        </p>
      )}
      {site.accounts.map((account) => (
        <AccountBlock key={account.id} site={site} account={account} />
      ))}
    </section>
  );
}

/** Goes to a site to sign in there. */
function Connect({
  site,
  accountId,
  ...rest
}: { site: SiteView; accountId?: string } & Omit<ComponentProps<typeof Button>, 'onClick'>) {
  const { trouble } = useNotices();
  const connect = async () => {
    try {
      const { address } = await ask<{ address: string }>(`/api/connect/${site.id}`, {
        method: 'POST',
        json: { accountId },
      });
      window.location.assign(address);
    } catch (error) {
      trouble(error);
    }
  };
  return <Button {...rest} onClick={connect} />;
}

const STATES: Record<AccountView['state'], { says: string; look: string }> = {
  connected: { says: '● connected', look: 'text-live' },
  'taken back': { says: '▲ permission taken back', look: 'text-snag' },
  disconnected: { says: '○ disconnected', look: 'text-soft' },
  removed: { says: '○ removed', look: 'text-soft' },
};

const listed = (things: string[]) => new Intl.ListFormat('en').format(things);

function AccountBlock({ site, account }: { site: SiteView; account: AccountView }) {
  const state = STATES[account.state];
  return (
    <div className="border-line border-b px-4 py-3 last:border-b-0">
      <div className="flex flex-wrap items-center gap-3">
        <b className="font-semibold">{account.name}</b>
        <span className={`text-sm ${state.look}`}>{state.says}</span>
        <span className="ml-auto">
          {account.state === 'connected' ? (
            <Disconnect site={site} account={account} />
          ) : (
            <span className="flex gap-4">
              <Connect site={site} accountId={account.id} look="plain">
                {BUTTONS.connectAgain}
              </Connect>
              {account.state === 'disconnected' && <Remove account={account} />}
            </span>
          )}
        </span>
      </div>
      {account.state === 'connected' && (
        <p className="mt-1 text-[13px] text-soft">Kettle Drop may {listed(account.permits)}.</p>
      )}
      <ul className="mt-2 grid gap-2 sm:grid-cols-2">
        {account.channels.map((channel) => (
          <li key={channel.id} className="rounded-lg border border-line px-3 py-2">
            <a href={channel.address} target="_blank" rel="noreferrer" className="font-semibold hover:underline">
              {channel.name}
            </a>
            <Link href={`/channels/${channel.id}`} className="textlink float-right text-[13px]">
              Defaults
            </Link>
            {site.groups && (
              <p className="text-[13px] text-soft">
                {channel.playlists.length === 0
                  ? `no ${site.groups} yet`
                  : channel.playlists.map((playlist) => `${playlist.title} (${playlist.videos})`).join(' · ')}
              </p>
            )}
            <p className="text-[13px] text-soft">
              {channel.lastUsedAt ? (
                <>
                  last used <Moment at={channel.lastUsedAt} />
                </>
              ) : (
                'not used yet'
              )}
            </p>
            <Round round={channel.round} />
          </li>
        ))}
      </ul>
    </div>
  );
}

/** How many videos of a channel are live, and since when all of them were read again: how long one round takes. */
function Round({ round: { live, unread, readSince } }: { round: AccountView['channels'][number]['round'] }) {
  if (live === 0) return null;
  return (
    <p className="text-[13px] text-soft">
      {live} live
      {unread > 0 && ` · ${unread} not read again yet`}
      {readSince && (
        <>
          {unread > 0 ? ' · the others' : live === 1 ? ' ·' : ' · all'} read again since <Moment at={readSince} />
        </>
      )}
    </p>
  );
}

function Disconnect({ site, account }: { site: SiteView; account: AccountView }) {
  const { say, trouble } = useNotices();
  const sure = useSure();
  const zone = useZone();
  const disconnect = async () => {
    const held = await ask<HeldOfAccount>(`/api/accounts/${account.id}`).catch(trouble);
    if (!held) return;
    const question = {
      title: `Disconnect ${account.name}?`,
      follows: [
        `The permission is taken back at ${site.name}. What is on its way there stops; connect again and it goes on.`,
        ...heldWords(held, zone),
        'Live videos stay live.',
      ],
      yes: BUTTONS.disconnect,
      no: 'Keep it',
    };
    if (!(await sure(question))) return;
    await ask(`/api/accounts/${account.id}`, { method: 'DELETE' }).then(
      () => say(`${account.name} is disconnected; the permission was taken back at ${site.name}.`),
      trouble,
    );
  };
  return (
    <Button look="plain" onClick={disconnect}>
      {BUTTONS.disconnect}
    </Button>
  );
}

/** Takes an account off the page that is not connected any more; connected again, it is back. */
function Remove({ account }: { account: AccountView }) {
  const { say, trouble } = useNotices();
  const remove = () =>
    ask(`/api/accounts/${account.id}`, { method: 'POST' }).then(
      () => say(`${account.name} is removed. Connect it again to have it back with its channels.`),
      trouble,
    );
  return (
    <Button look="plain" onClick={remove}>
      Remove
    </Button>
  );
}

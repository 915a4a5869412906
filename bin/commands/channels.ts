import { spawn } from 'node:child_process';
import { startConnecting } from '@/desk/account/connect';
import { lookAtChannels } from '@/desk/views/look';
import { settings } from '@/store/settings';
import { siteNamed } from './named/site';

/** Prints every channel with its site and account. */
export async function channels(options: { json?: boolean }): Promise<void> {
  const { sites } = await lookAtChannels();
  const lines = sites.flatMap((site) =>
    site.accounts.flatMap((account) =>
      account.channels.map(({ name, address, connected, lastUsedAt }) => ({
        channel: name,
        site: site.id,
        account: account.name,
        connected,
        address,
        lastUsedAt: lastUsedAt ?? null,
      })),
    ),
  );
  if (options.json) {
    process.stdout.write(`${JSON.stringify(lines, null, 2)}\n`);
    return;
  }
  if (lines.length === 0) process.stdout.write('No channel is connected yet. Connect one with: kettle connect SITE\n');
  for (const { channel, site, account, connected } of lines) {
    process.stdout.write(
      `${connected ? '●' : '▲'} ${site}/${channel}  (${account}${connected ? '' : ', not connected'})\n`,
    );
  }
}

/** Opens the page of a site at which an account is connected; where there is no screen, prints its address. */
export async function connect(site: string): Promise<void> {
  const { id: siteId } = siteNamed(site);
  const address = await startConnecting(siteId, `http://127.0.0.1:${settings().webPort}/api/connect/${siteId}/back`);
  process.stdout.write(`${address}\n`);
  if (!process.env.DISPLAY && !process.env.WAYLAND_DISPLAY) return;
  const opened = spawn('xdg-open', [address], { stdio: 'ignore', detached: true });
  opened.on('error', () => undefined);
  opened.unref();
}

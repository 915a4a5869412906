import { site } from '@/desk/site/session';
import { lookAtParts, type PartView } from '@/desk/views/look-at-parts';
import { channelsNamed } from './named/channel';
import { videoNamed } from './named/video';

/** Where a part stands, in a line of words. */
function says({ asked, given, shown, left, failed, toGive }: PartView): string {
  const states = [
    failed && `not taken: ${failed.why}${failed.again ? `; tried again at ${failed.again}` : ''}`,
    asked && 'asked, and not confirmed',
    shown && `shown otherwise: ${JSON.stringify(shown.value)}${left ? ', left as it is' : ''}`,
    ...toGive.map(({ field, was, is }) => `to be sent: ${field}: “${was}” → “${is}”`),
    toGive.length === 0 && !asked && (given ? 'there' : 'nothing to send'),
  ];
  return states.filter(Boolean).join('; ');
}

/** Prints where each part of a video stands: what is wanted, asked, given, shown, left, and what failed. */
export async function parts(name: string, options: { channel?: string[]; json?: boolean }): Promise<void> {
  const videoId = await videoNamed(name);
  const named = await channelsNamed(options.channel ?? []);
  const all = (await lookAtParts(videoId)).filter(({ channel }) => named.length === 0 || named.includes(channel.id));
  if (options.json) {
    const data = all.map(({ channel, parts: each }) => ({ channel: channel.name, site: channel.site, parts: each }));
    process.stdout.write(`${JSON.stringify(data, null, 2)}\n`);
    return;
  }
  for (const { channel, parts: each } of all) {
    process.stdout.write(`${channel.name} on ${site(channel.site).profile.name}\n`);
    const width = Math.max(...each.map(({ part }) => part.length));
    for (const view of each) process.stdout.write(`  ${view.part.padEnd(width)}  ${says(view)}\n`);
  }
}

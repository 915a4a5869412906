import { DeskError } from '@/desk/desk-error';
import { lookAtChannels } from '@/desk/views/look';

/** The channel of a name, or of `site/name` where several sites have one of that name, by its id. @throws DeskError */
export async function channelNamed(name: string): Promise<string> {
  const { sites } = await lookAtChannels();
  const all = sites.flatMap((site) => site.accounts.flatMap((account) => account.channels));
  const wanted = name.toLowerCase();
  const fits = all.filter((channel) => {
    const own = channel.name.toLowerCase();
    return channel.connected && (own === wanted || `${channel.site}/${own}` === wanted);
  });
  if (fits.length === 1 && fits[0]) return fits[0].id;
  if (fits.length > 1) {
    const which = fits.map((channel) => `“${channel.site}/${channel.name}”`).join(' or ');
    throw new DeskError('not found', `There are ${fits.length} channels called “${name}”. Say ${which}.`);
  }
  const known = all.filter((channel) => channel.connected).map((channel) => `“${channel.name}”`);
  const which =
    known.length > 0 ? `Connected are ${known.join(', ')}.` : 'No channel is connected; connect one on Channels.';
  throw new DeskError('not found', `There is no channel called “${name}”. ${which}`);
}

/** The channels of several names, by their ids. @throws DeskError */
export async function channelsNamed(names: readonly string[]): Promise<string[]> {
  const ids: string[] = [];
  for (const name of names) ids.push(await channelNamed(name));
  return ids;
}

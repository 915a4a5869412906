import { number, object } from 'yup';
import type { GivenToSite } from '@/core/drop';
import { type Channel, channelById } from '@/store/channels';
import { database } from '@/store/database';
import { type Drop, dropById } from '@/store/drops';
import { givenTo } from '@/store/given-words';
import { DeskError, found } from '../desk-error';
import { meantWords } from '../drop/meant';
import { profileAt, recordOf } from '../drop/record';
import { site } from '../site/session';
import { editOnChannel } from '../video/edit-video';
import { textShowing } from './text-showing';

const backShape = object({ given: number().integer().min(1).required() }).noUnknown();

/**
 * Puts words back that a drop's site was given before: title, text, tags and playlists are set for this channel alone. They
 * go out when a person sends the changes, and can be undone.
 * @throws DeskError where they are no longer kept, or are as they are now
 */
export async function putBack(dropId: string, input: unknown): Promise<void> {
  const { given: id } = await backShape.validate(input, { stripUnknown: false });
  const db = database();
  const drop = found(await dropById(db, dropId), 'drop');
  const channel = found(await channelById(db, drop.channelId), 'channel');
  const given = found(
    (await givenTo(db, dropId)).find((each) => each.id === id),
    'text of before',
  );
  const { words, playlists } = JSON.parse(given.words) as GivenToSite;
  const set = await setFor(drop, channel, words);
  const now = meantWords(await recordOf(db, drop.videoId), channel, drop, profileOf(channel));
  const samePlaylists = JSON.stringify(now.playlists) === JSON.stringify(playlists);
  if (Object.keys(set).length === 0 && samePlaylists) {
    throw new DeskError('not now', 'Title, text, tags and playlists are like that already.');
  }
  await editOnChannel(drop.videoId, { channelId: channel.id, set, ...(samePlaylists ? {} : { playlists }) });
}

const profileOf = (channel: Channel) => profileAt(site(channel.site).profile, channel);

/** What to set for the channel so that its words are those again; nothing for what is so already. */
async function setFor(drop: Drop, channel: Channel, words: GivenToSite['words']) {
  const record = await recordOf(database(), drop.videoId);
  const profile = profileOf(channel);
  const shows = (own: Partial<Drop['own']>) =>
    meantWords(record, channel, { ...drop, own: { ...drop.own, ...own } }, profile).fitted.words;
  const now = shows({});
  const tags = JSON.stringify(now.tags) !== JSON.stringify(words.tags);
  return {
    ...(profile.title && now.title !== words.title && { title: words.title }),
    ...(profile.text &&
      now.text !== words.text && {
        text: textShowing(words.text, words.chapters, (text) => shows({ text }).text),
      }),
    ...(typeof profile.tags === 'object' && tags && { tags: { way: 'replace' as const, items: words.tags } }),
  };
}

import { number, object } from 'yup';
import { expectedOf, PARTS, type PartName, type PartsShown, partNames, takenOver } from '@/core/parts';
import { database } from '@/store/database';
import { dropById } from '@/store/drop/drops';
import { givenTo } from '@/store/drop/parts';
import { channelById } from '@/store/site/channels';
import { DeskError, found } from '../desk-error';
import { meantWords } from '../drop/meant';
import { profileAt, recordOf } from '../drop/record';
import { site } from '../site/session';
import { editOnChannel } from '../video/edit-video';
import { givenBefore } from './given-before';

const backShape = object({ given: number().integer().min(1).required() }).noUnknown();

/**
 * Puts parts back that a drop's site was given before, as far as a channel can have them for itself. They go out when a person
 * sends the changes, and can be undone.
 * @throws DeskError where they are no longer kept, or are as they are now
 */
export async function putBack(dropId: string, input: unknown): Promise<void> {
  const { given: id } = await backShape.validate(input, { stripUnknown: false });
  const db = database();
  const drop = found(await dropById(db, dropId), 'drop');
  const channel = found(await channelById(db, drop.channelId), 'channel');
  const given = found(
    givenBefore(await givenTo(db, dropId)).find((each) => each.id === id),
    'text of before',
  );
  const record = await recordOf(db, drop.videoId);
  const profile = profileAt(site(channel.site).profile, channel);
  const meantWith = (own: object) => meantWords(record, channel, { ...drop, own: { ...drop.own, ...own } }, profile);
  const now = meantWith({}).parts;
  const back = partNames().filter((part) => isOther(part, given.parts[part], now[part]));
  const shown: PartsShown = expectedOf(given.parts, profile);
  const { set = {}, playlists } = takenOver(back, {
    shown,
    textBecomes: (text) => meantWith({ text }).fitted.words.text,
  });
  if (Object.keys(set).length === 0 && !playlists) throw new DeskError('not now', 'It is like that already.');
  await editOnChannel(drop.videoId, { channelId: channel.id, set, ...(playlists && { playlists }) });
}

/** Whether a part that can be put back was another one. */
function isOther(part: PartName, was: unknown, is: unknown): boolean {
  const { takeOver, same } = PARTS[part];
  return takeOver !== undefined && was !== undefined && is !== undefined && !same(was as never, is as never);
}

import { NO_CHOICE } from '@/core/chapters';
import { DEFAULT_FIELDS, type DefaultField, isDefaultField, isListField, PLAIN_DEFAULTS } from '@/core/defaults';
import { tagsFromText } from '@/core/words';
import { DeskError } from '@/desk/desk-error';
import { editOnChannel, editVideo } from '@/desk/video/edit-video';
import { channelsNamed } from './named/channel';
import { chaptersOfColours } from './named/chapters';
import { momentNamed } from './named/moment';
import { seriesNamed } from './named/series';
import { videoNamed } from './named/video';

/** Fields that are kept beside those of the layers. */
const TEXTS = ['title', 'summary', 'episode'] as const;
/** What can be written for one channel alone, beside the fields of the layers. */
const ON_CHANNEL = ['title', 'text'] as const;

const ANSWERS: Record<string, boolean> = { yes: true, no: false, true: true, false: false };

/** A value as it is written after the equals sign. @throws DeskError */
function valueFrom(field: DefaultField, text: string): unknown {
  if (text === '') return null;
  if (/^[[{]/.test(text)) {
    try {
      return JSON.parse(text);
    } catch (error) {
      throw new DeskError('not taken', `The value of ${field} is no JSON: ${(error as Error).message}.`);
    }
  }
  if (field === 'opensAt') return momentNamed(text);
  const items = tagsFromText(text);
  if (field === 'links') return { way: 'replace', items: items.map((shelf) => ({ shelf })) };
  if (isListField(field)) return { way: 'replace', items };
  const plain = PLAIN_DEFAULTS[field];
  if (typeof plain === 'number') return Number(text);
  if (Array.isArray(plain)) return items;
  if (typeof plain !== 'boolean' && field !== 'forChildren') return text;
  const answer = ANSWERS[text.toLowerCase()];
  if (answer === undefined) throw new DeskError('not taken', `Answer ${field} with yes or no, not with “${text}”.`);
  return answer;
}

async function edit(pair: string, onChannel: boolean): Promise<[string, unknown]> {
  const split = /^([A-Za-z]+)=([\s\S]*)$/.exec(pair);
  if (!split) throw new DeskError('not taken', `“${pair}” is no FIELD=VALUE.`);
  const [, field = '', text = ''] = split;
  if (isDefaultField(field)) return [field, await valueFrom(field, text)];
  const own: readonly string[] = onChannel ? ON_CHANNEL : TEXTS;
  if (own.includes(field)) return [field, text];
  if (!onChannel && field === 'series') return ['seriesId', text === '' ? null : await seriesNamed(text)];
  if (!onChannel && field === 'chapters') {
    return ['chapterChoice', text === '' ? null : text === 'none' ? NO_CHOICE : chaptersOfColours(text)];
  }
  const more = onChannel ? [] : ['series', 'chapters'];
  const all = [...own, ...more, ...DEFAULT_FIELDS].join(', ');
  throw new DeskError('not taken', `There is no field “${field}”. There are ${all}.`);
}

/** Sets fields of a video, or of it on the channels named alone. An empty value leaves a field to the layers beneath. */
export async function set(name: string, pairs: string[], options: { channel?: string[] }): Promise<void> {
  const id = await videoNamed(name);
  const channels = await channelsNamed(options.channel ?? []);
  const edits: [string, unknown][] = [];
  for (const pair of pairs) edits.push(await edit(pair, channels.length > 0));
  const fields = Object.fromEntries(edits);
  if (channels.length === 0) await editVideo(id, fields);
  for (const channelId of channels) await editOnChannel(id, { channelId, set: fields });
}

import { DEFAULT_FIELDS, type DefaultField, FIELD_NAMES, sourceWords } from '@/core/defaults';
import { isMoment, momentInWords } from '@/core/release';
import type { SheetChannel, SheetView } from '@/desk/views/views';

const HOW = { file: 'recognised from the file name', person: 'as you said' };

/** A value on one line. */
function valueWords(value: unknown): string {
  if (value === undefined || value === null || value === '') return 'nothing';
  if (typeof value === 'boolean') return value ? 'yes' : 'no';
  if (Array.isArray(value) && value.every((item) => typeof item === 'string')) return value.join(', ') || 'none';
  if (isMoment(value)) return momentInWords(value);
  return JSON.stringify(value);
}

function channelLines(channel: SheetChannel, channelNames: ReadonlyMap<string, string>): string[] {
  const fields = DEFAULT_FIELDS.filter((field) => channel.values[field].from.length > 0);
  const line = (field: DefaultField) => {
    const { value, from } = channel.values[field];
    const shown = field === 'channels' ? (value as string[]).map((id) => channelNames.get(id) ?? id) : value;
    return `  ${FIELD_NAMES[field]}: ${valueWords(shown)}  [${sourceWords(from)}]`;
  };
  const { words, leftOut } = channel;
  return [
    `${channel.name} on ${channel.siteName}`,
    ...fields.map(line),
    `  title there: ${valueWords(words.title)}`,
    `  text there:\n${words.text.replace(/^/gm, '    ')}`,
    ...leftOut.map((what) => `  left out: ${what}`),
  ];
}

/** What each ticked channel gets, and which layer gave each value that some layer gave. */
export function explanation(sheet: SheetView): string {
  const { series, episode, channels } = sheet;
  const names = new Map(channels.map(({ id, name }) => [id, name]));
  const head = series
    ? `Series: ${series.name}, ${HOW[series.from]}${episode ? `; episode ${episode}` : ''}`
    : 'Series: none';
  return [head, ...channels.filter(({ ticked }) => ticked).flatMap((channel) => channelLines(channel, names))].join(
    '\n',
  );
}

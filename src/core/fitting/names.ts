import { linkLine, type NamedLink, type Shelf, type TemplateView } from '../words';

/** What a video and its channel are called, for templates. */
export interface TextNames {
  channel: string;
  series: string;
  episode: string;
  /** In words. */
  date: string;
  shelf: Shelf;
}

/** The names that a template may use beside those of the shelf, with what each stands for. */
export const TEMPLATE_NAMES: readonly { name: string; says: string; section?: boolean }[] = [
  { name: 'title', says: 'the title as it was typed' },
  { name: 'summary', says: 'the lines about this video' },
  { name: 'links', says: 'the video’s own links: repeats for each, vanishes where there are none', section: true },
  { name: 'chapters', says: 'the chapter lines, where the site takes them so' },
  { name: 'hashtags', says: 'the tags as # words, where the site takes them so' },
  { name: 'channel', says: 'the channel’s name' },
  { name: 'series', says: 'the series’ name' },
  { name: 'episode', says: 'the number of the episode' },
  { name: 'date', says: 'the recording date, or else the day on which the file came' },
  { name: 'cut-first', says: 'dropped first if the text is too long; then cut-second', section: true },
  { name: 'takes-links', says: 'only where the site takes links', section: true },
];

/** The shelf as a template sees it: whole lines by `shelf.name`, addresses alone by `address.name`; '' where none may be. */
export function shelfView(shelf: Shelf, takesLinks: boolean): TemplateView {
  const each = (show: (link: NamedLink) => string): TemplateView =>
    Object.fromEntries(Object.entries(shelf).map(([name, link]) => [name, takesLinks ? show(link) : '']));
  return { shelf: each(linkLine), address: each(({ url }) => url) };
}

/** A day in words, in a language where one is known: 25 November 2026. @param day as YYYY-MM-DD */
export function dayInWords(day: string, language: string): string {
  return dayFormat(language).format(new Date(`${day}T00:00:00Z`));
}

/** To make one takes longer than to fit all words of a video. */
const dayFormats = new Map<string, Intl.DateTimeFormat>();

function dayFormat(language: string): Intl.DateTimeFormat {
  const kept = dayFormats.get(language);
  if (kept) return kept;
  const known = Intl.DateTimeFormat.supportedLocalesOf(language || 'en-GB');
  const made = new Intl.DateTimeFormat([...known, 'en-GB'], { dateStyle: 'long', timeZone: 'UTC' });
  dayFormats.set(language, made);
  return made;
}

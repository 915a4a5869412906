import { zoneNamed } from './moment';

/** What a text says of the zone that its time is meant in. */
export interface ZoneSaid {
  /** The text without it. */
  text: string;
  /** The IANA zone; undefined where none was said. */
  zone?: string;
  /** A name for clocks that a zone shows for a part of the year only, such as CET, with its minutes east of UTC. */
  clocks?: { name: string; minutes: number };
  /** What is wrong with what was said, in a sentence. */
  finding?: string;
}

/**
 * Names of clocks, as the zones of the IANA tz database have them (europe, northamerica, australasia, asia; from memory), with
 * a zone that shows them. One with two names has no minutes of its own: ET is whatever New York shows.
 */
const CLOCKS: Record<string, { zone: string; minutes?: number }> = {
  wet: { zone: 'Europe/Lisbon', minutes: 0 },
  west: { zone: 'Europe/Lisbon', minutes: 60 },
  bst: { zone: 'Europe/London', minutes: 60 },
  cet: { zone: 'Europe/Berlin', minutes: 60 },
  cest: { zone: 'Europe/Berlin', minutes: 120 },
  mez: { zone: 'Europe/Berlin', minutes: 60 },
  mesz: { zone: 'Europe/Berlin', minutes: 120 },
  eet: { zone: 'Europe/Helsinki', minutes: 120 },
  eest: { zone: 'Europe/Helsinki', minutes: 180 },
  msk: { zone: 'Europe/Moscow', minutes: 180 },
  est: { zone: 'America/New_York', minutes: -300 },
  edt: { zone: 'America/New_York', minutes: -240 },
  et: { zone: 'America/New_York' },
  cdt: { zone: 'America/Chicago', minutes: -300 },
  ct: { zone: 'America/Chicago' },
  mst: { zone: 'America/Denver', minutes: -420 },
  mdt: { zone: 'America/Denver', minutes: -360 },
  mt: { zone: 'America/Denver' },
  pst: { zone: 'America/Los_Angeles', minutes: -480 },
  pdt: { zone: 'America/Los_Angeles', minutes: -420 },
  pt: { zone: 'America/Los_Angeles' },
  akst: { zone: 'America/Anchorage', minutes: -540 },
  akdt: { zone: 'America/Anchorage', minutes: -480 },
  hst: { zone: 'Pacific/Honolulu', minutes: -600 },
  nst: { zone: 'America/St_Johns', minutes: -210 },
  ndt: { zone: 'America/St_Johns', minutes: -150 },
  jst: { zone: 'Asia/Tokyo', minutes: 540 },
  kst: { zone: 'Asia/Seoul', minutes: 540 },
  hkt: { zone: 'Asia/Hong_Kong', minutes: 480 },
  awst: { zone: 'Australia/Perth', minutes: 480 },
  acst: { zone: 'Australia/Adelaide', minutes: 570 },
  acdt: { zone: 'Australia/Adelaide', minutes: 630 },
  aest: { zone: 'Australia/Sydney', minutes: 600 },
  aedt: { zone: 'Australia/Sydney', minutes: 660 },
  nzst: { zone: 'Pacific/Auckland', minutes: 720 },
  nzdt: { zone: 'Pacific/Auckland', minutes: 780 },
};

/** Names that stand for clocks of several countries, each with a place of two of them. */
const SEVERAL: Record<string, [string, string]> = {
  cst: ['Chicago', 'Shanghai'],
  ist: ['Kolkata', 'Dublin'],
  ast: ['Halifax', 'Riyadh'],
  gst: ['Dubai', 'South Georgia'],
};

/** Cities that were called otherwise in the tz database before, and still are by some engines. */
const RENAMED = [
  ...['Asia/Kolkata', 'Asia/Kathmandu', 'Asia/Ho_Chi_Minh', 'Asia/Yangon', 'Europe/Kyiv', 'America/Nuuk'],
  ...['Africa/Asmara', 'Atlantic/Faroe', 'Pacific/Kanton', 'Pacific/Chuuk', 'Pacific/Pohnpei', 'America/Buenos_Aires'],
];
/** So many words the name of a city in the tz database has at the most: Port of Spain. */
const MOST_WORDS = 3;

const tidy = (text: string) => text.replace(/\s+/g, ' ').trim();

/** A text without one of its parts, and without the word that led to it. */
const without = (text: string, found: string): string => {
  const at = text.indexOf(found);
  const before = text.slice(0, at).replace(/\b(?:in|at)\s+$/i, '');
  return tidy(`${before} ${text.slice(at + found.length).replace(/^\s*time\b/i, '')}`);
};

let cities: ReadonlyMap<string, string> | undefined;

/** The zone of a city that the tz database knows, whatever part of the world it is in. */
function zoneOfCity(name: string): string | undefined {
  cities ??= new Map(
    [...Intl.supportedValuesOf('timeZone').filter((zone) => zone.includes('/')), ...RENAMED].map((zone) => [
      (zone.split('/').at(-1) ?? '').replaceAll('_', ' ').toLowerCase(),
      zone,
    ]),
  );
  return cities.get(name.replace(/['.]/g, '').toLowerCase());
}

/** The longest run of words that is a city. */
function citySaid(text: string): { found: string; zone: string } | undefined {
  const words = [...text.matchAll(/[\p{L}][\p{L}'.-]*/gu)];
  for (let length = MOST_WORDS; length > 0; length -= 1) {
    for (let first = 0; first + length <= words.length; first += 1) {
      const [begin, end] = [words[first], words[first + length - 1]];
      if (!begin || !end) continue;
      const found = text.slice(begin.index, end.index + end[0].length);
      if (!/^[\p{L}'.-]+(?: [\p{L}'.-]+)*$/u.test(found)) continue;
      const zone = zoneOfCity(found);
      if (zone) return { found, zone };
    }
  }
  return undefined;
}

/**
 * The zone that a text names, with the rest of the text: “fri 9:00 London”, “… CET”, “… America/New_York”, “… UTC”. An offset
 * such as +02:00 is no zone, and stays in the text.
 */
export function zoneSaid(text: string): ZoneSaid {
  const [iana] = /\b[A-Za-z]+(?:\/[A-Za-z][A-Za-z0-9_+-]*){1,2}/.exec(text) ?? [];
  if (iana) {
    const zone = zoneNamed(iana);
    if (!zone) return { text, finding: `There is no time zone “${iana}”. Name it by place, such as Europe/Berlin.` };
    return { text: without(text, iana), zone };
  }
  const [utc] = /\b(?:UTC|GMT)\b(?!\s*[+-]?\d)|(?<=\s)Z$/i.exec(text) ?? [];
  if (utc) return { text: without(text, utc), zone: 'UTC' };
  for (const [word] of text.matchAll(/\b[A-Za-z]{2,4}\b/g)) {
    const name = word.toLowerCase();
    const several = SEVERAL[name];
    if (several) {
      const what = `“${word}” is the time of several countries.`;
      return { text, finding: `${what} Name a city instead, such as ${several.join(' or ')}.` };
    }
    const clocks = CLOCKS[name];
    if (!clocks) continue;
    const { zone, minutes } = clocks;
    const rest = { text: without(text, word), zone };
    return minutes === undefined ? rest : { ...rest, clocks: { name: word.toUpperCase(), minutes } };
  }
  const city = citySaid(text);
  return city ? { text: without(text, city.found), zone: city.zone } : { text };
}

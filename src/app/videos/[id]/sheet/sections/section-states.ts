import { fieldsTaken } from '@/core/declarations';
import { binarySize } from '@/core/delivery';
import { openWarnings } from '@/core/preflight';
import { rate, rateName, viewerTime } from '@/core/time';
import type { SheetChannel, SheetView } from '@/desk/views/views';
import { languageName } from '@/ui/language-name';
import { SECTIONS, type SectionId, sectionOf } from './sections';

/** How a section stands: in a line of words, by how much is missing, and by whether it has what it needs. */
export interface SectionState {
  says: string;
  missing: number;
  done: boolean;
  /** Whether this video has any use for it. */
  used: boolean;
  /** Whether it is open when the Sheet is opened. */
  asksForWork: boolean;
}

/** What of the time line the states need. */
export interface TimeLineCount {
  markers: number;
  chapters: number;
}

/** Whether what is missing keeps the video from going there now: where it is on its way, or has nothing new, not. */
export function isAsked({ ticked, drop, changes }: SheetChannel): boolean {
  if (!ticked) return false;
  if (!drop || drop.state === 'draft' || drop.state === 'removed') return true;
  return changes.length > 0 || drop.state === 'snag';
}

/** Something that is missing, once, with the channels that it is missing for. */
export interface Finding {
  place: SheetChannel['missing'][number]['place'];
  what: string;
  blank: string | undefined;
  channels: SheetChannel[];
}

/** What keeps the video from where it is to go: each finding once, in the order of the Sheet. */
export function findingsOf({ channels }: Pick<SheetView, 'channels'>): Finding[] {
  const found = new Map<string, Finding>();
  for (const channel of channels.filter(isAsked)) {
    for (const { place, what, blank } of channel.missing) {
      const finding = found.get(what) ?? { place, what, blank, channels: [] };
      finding.channels.push(channel);
      found.set(what, finding);
    }
  }
  const order = ({ place }: Finding) => SECTIONS.indexOf(sectionOf(place));
  return [...found.values()].sort((a, b) => order(a) - order(b));
}

function fileSays({ cut, betterCut }: SheetView): string {
  if (!cut) return 'none yet';
  if (betterCut) return betterCut.state === 'refused' ? 'the new file cannot be used' : 'a new file is on its way';
  if (cut.state === 'refused') return 'it cannot be used';
  const { facts } = cut;
  if (!facts) return cut.state === 'arriving' ? `on its way · ${binarySize(cut.size)}` : 'being read';
  const { video, duration, size } = facts;
  return [
    `${video.width}×${video.height}`,
    `${rateName(rate(video.rate.num, video.rate.den))} fps`,
    viewerTime(duration, duration.num / duration.den),
    binarySize(size),
  ].join(' · ');
}

const count = (number: number, one: string, many = `${one}s`) => `${number} ${number === 1 ? one : many}`;

function chaptersSay({ chaptersChosen }: SheetView, { markers, chapters }: TimeLineCount): string {
  if (markers === 0) return 'no markers yet: drop the edit’s marker file on this page';
  if (!chaptersChosen && chapters === 0) return `none chosen: ${count(markers, 'marker')} for the team only`;
  const notes = markers - chapters;
  const rest = notes === 1 ? ' · 1 note stays private' : ` · ${notes} notes stay private`;
  return `${count(chapters, 'chapter')}${notes > 0 ? rest : ''}`;
}

function pictureSays({ picture }: SheetView): string {
  if (!picture) return 'the site picks a frame';
  return `${picture.source === 'frame' ? 'from the video' : 'your own file'} · ${picture.width}×${picture.height}`;
}

function declarationsSay({ values, channels }: SheetView): string {
  const taken = new Set(channels.flatMap(({ ticked, rules }) => (ticked ? fieldsTaken(rules.declares) : [])));
  const says = [
    taken.has('forChildren') &&
      values.forChildren !== undefined &&
      (values.forChildren ? 'for children' : 'for anyone'),
    taken.has('adultsOnly') && values.adultsOnly && 'adults only',
    taken.has('licence') && values.licence,
    taken.has('products') && count(values.products.length, 'product'),
    taken.has('credits') && values.credits.length > 0 && count(values.credits.length, 'credit'),
  ];
  return says.filter((each): each is string => typeof each === 'string').join(' · ');
}

function wordsSay({ series, titleFrom }: SheetView): string {
  const title = titleFrom === 'file' ? 'title made from the file name' : '';
  return [title, series ? `defaults from ${series.name}` : ''].filter(Boolean).join(' · ');
}

function lastSaid(channels: readonly SheetChannel[]): string {
  const last = channels.flatMap(({ name, events }) => events.map((event) => ({ ...event, name })));
  const newest = last.sort((a, b) => b.at.localeCompare(a.at) || b.id - a.id)[0];
  return newest ? `${newest.name}: ${newest.says}` : '';
}

/** How each section of a Sheet stands. */
export function sectionStates(sheet: SheetView, timeLine: TimeLineCount): Record<SectionId, SectionState> {
  const missing = new Map<SectionId, number>();
  for (const { place } of findingsOf(sheet)) missing.set(sectionOf(place), (missing.get(sectionOf(place)) ?? 0) + 1);
  const ticked = sheet.channels.filter((channel) => channel.ticked);
  const { cut, betterCut, captions, channels } = sheet;
  const toChoose =
    timeLine.markers > 0 &&
    timeLine.chapters === 0 &&
    !sheet.chaptersChosen &&
    ticked.some(({ rules }) => rules.chapters);
  const hitches = captions.reduce((sum, { findings }) => sum + findings.length, 0);
  const declared = ticked.some(({ rules }) => rules.declares || (rules.captions && captions.length > 0));
  const sent = channels.some(({ events }) => events.length > 0);
  const warnings = openWarnings(sheet).length;
  const cutWorks = warnings === 0 && cut?.facts !== undefined && !betterCut && !sheet.lengthBefore && !cut.setAside;
  const state = (id: SectionId, says: string, more: Partial<SectionState> = {}): SectionState => {
    const lacks = missing.get(id) ?? 0;
    return { says, missing: lacks, done: lacks === 0, used: true, asksForWork: lacks > 0, ...more };
  };
  return {
    file: state('file', [fileSays(sheet), warnings > 0 && `${warnings} to look at`].filter(Boolean).join(' · '), {
      done: cutWorks && !missing.has('file'),
      asksForWork: !cutWorks,
    }),
    chapters: state('chapters', chaptersSay(sheet, timeLine), {
      done: timeLine.chapters > 0 && !missing.has('chapters'),
      asksForWork: toChoose || missing.has('chapters'),
    }),
    words: state('words', wordsSay(sheet), { asksForWork: true }),
    markers: state('markers', count(timeLine.markers, 'marker'), { used: timeLine.markers > 0 }),
    picture: state('picture', pictureSays(sheet), { done: sheet.picture !== undefined && !missing.has('picture') }),
    captions: state(
      'captions',
      captions.length === 0
        ? 'none: drop a SubRip or WebVTT file on this page'
        : captions.map(({ language }) => languageName(language)).join(', '),
      { done: captions.length > 0 && hitches === 0, asksForWork: hitches > 0 },
    ),
    declarations: state('declarations', declarationsSay(sheet), { used: declared }),
    history: state('history', lastSaid(channels), { used: sent, done: false }),
  };
}

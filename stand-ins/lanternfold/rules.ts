import { array, boolean, number, object, string } from 'yup';
import type { FoldRule } from '../shared/folded';
import { Problem } from '../shared/problem';
import type { Chapter, Video } from './video';

/** At first three lines, and of those 160 UTF-16 code units. */
export const FOLD: FoldRule = { lines: 3, most: 160, sizeOf: (sign) => sign.length };

const GIB = 1024 ** 3;
const LINE = /^\s*(?:(\d{1,2}):)?(\d{1,3}):([0-5]\d)\s+(?:[-–]\s+)?(\S.*)$/;

const linksIn = (text: string | undefined) => (text ?? '').match(/(https?:\/\/|www\.)\S+/gi) ?? [];

/** What a video can be about. */
export const CATEGORIES = [
  { id: 'craft', name: 'Craft and making' },
  { id: 'travel', name: 'Places and travel' },
  { id: 'learning', name: 'Learning' },
  { id: 'music', name: 'Music' },
  { id: 'news', name: 'News and reports' },
  { id: 'people', name: 'People' },
];

export const newVideoShape = object({
  fileName: string().trim().min(1).max(500).required(),
  size: number()
    .integer()
    .min(1)
    .max(64 * GIB)
    .required(),
}).noUnknown();

export const wordsShape = object({
  title: string().trim().min(1).max(96),
  description: string()
    .max(4200)
    .test('links', 'description has at most 25 links', (text) => linksIn(text).length <= 25),
  tags: array(
    string()
      .required()
      .test('length', 'a tag has at most 32 code points', (tag) => [...(tag ?? '')].length <= 32),
  ).max(24),
  visibility: string().oneOf(['open', 'by-link', 'closed'] as const),
  opensAt: string().datetime('opensAt has to be a time in UTC, such as 2026-11-28T17:30:00Z'),
  opensTo: string().oneOf(['open', 'by-link'] as const),
  /** All who come from that time on see the same moment. */
  firstShowing: boolean(),
  category: string().oneOf(['', ...CATEGORIES.map(({ id }) => id)]),
  language: string().matches(/^([A-Za-z]{2,3}(-[A-Za-z0-9]{2,8})*)?$/, 'language has to be a language tag'),
  licence: string().oneOf(['all-rights', 'cc-by'] as const),
  recordedOn: string().matches(/^(\d{4}-\d{2}-\d{2})?$/, 'recordedOn has to be a day such as 2026-11-25'),
  place: string().max(120),
  madeForChildren: boolean(),
  adultsOnly: boolean(),
  paidPlacement: boolean(),
  comments: string().oneOf(['open', 'hold-doubtful', 'hold-all', 'off'] as const),
  ratings: boolean(),
  embedding: boolean(),
  tellSubscribers: boolean(),
  shownIn: object({
    way: string()
      .oneOf(['all', 'only', 'not'] as const)
      .required(),
    countries: array(
      string()
        .required()
        .matches(/^[A-Z]{2}$/, 'a country is named by two capital letters'),
    )
      .max(250)
      .required()
      .when('way', ([way], shape) => (way === 'all' ? shape : shape.min(1, 'shownIn has to name a country'))),
  })
    .noUnknown()
    .default(undefined),
  broadcast: string().oneOf(['unsaid', 'never', 'captioned', 'not-captioned'] as const),
  adverts: string().oneOf(['off', 'context', 'interest'] as const),
}).noUnknown();

const THUMBNAIL_BYTES = 4_000_000;

/** Checks a thumbnail: JPEG, PNG or WebP, 16:9, from 1000 wide, at most 4 MB. */
export function checkThumbnail(found: { format?: string; width?: number; height?: number }, bytes: number): void {
  const { format = '', width = 0, height = 0 } = found;
  const refuse = (detail: string) => {
    throw new Problem(422, 'Picture not taken', detail, { field: 'thumbnail' });
  };
  if (!['jpeg', 'png', 'webp'].includes(format)) refuse('Only JPEG, PNG and WebP are taken');
  if (bytes > THUMBNAIL_BYTES) refuse(`At most ${THUMBNAIL_BYTES} bytes are taken`);
  if (width < 1000) refuse('It has to be at least 1000 pixels wide');
  if (Math.abs(width * 9 - height * 16) > 16) refuse('It has to be 16:9');
}

/**
 * The chapters in a description: lines that start with a time, if the first is 0:00, there are two to sixty, they go
 * up, and each lasts ten seconds or longer; else none.
 */
export function chaptersIn(video: Pick<Video, 'description' | 'seconds'>): Chapter[] {
  const chapters = video.description.split('\n').flatMap((line): Chapter[] => {
    const match = LINE.exec(line);
    if (!match) return [];
    const [, hours = '0', minutes = '0', seconds = '0', title = ''] = match;
    return [{ seconds: Number(hours) * 3600 + Number(minutes) * 60 + Number(seconds), title: title.trim() }];
  });
  if (chapters.length < 2 || chapters.length > 60 || chapters[0]?.seconds !== 0) return [];
  const ends = [...chapters.slice(1).map((chapter) => chapter.seconds), video.seconds ?? Number.POSITIVE_INFINITY];
  const longEnough = chapters.every((chapter, index) => Math.floor(ends[index] ?? 0) - chapter.seconds >= 10);
  return longEnough ? chapters : [];
}

import { MARKER_FILE_ENDINGS } from '../markers';

/** A file in the inbox as one look finds it: bytes, and when it was changed last, in milliseconds. */
export interface FoundFile {
  name: string;
  size: number;
  changedAt: number;
}

/** A finished video with the files of its name beside it. */
export interface InboxGroup {
  video: string;
  markers: string[];
  /** Captions with the language that their name tells; undefined where it tells none. */
  captions: { name: string; language: string | undefined }[];
  picture: string | undefined;
}

const VIDEOS = ['.mp4', '.m4v', '.mov', '.mkv', '.webm'];
const PICTURES = ['.jpg', '.jpeg', '.png', '.webp'];
/** How programs name what they have not written to its end. */
const PARTIAL = /(?:^[.~]|~$|\.(?:part|partial|tmp|temp|crdownload|download|filepart|!ut)$)/i;
/** A name that ends in a language: clip.en, clip.pt-BR. */
const LANGUAGE = /\.([a-z]{2,3}(?:-[A-Za-z0-9]{2,8})*)$/;

const endingOf = (name: string) => /\.[^.]+$/.exec(name)?.[0].toLowerCase() ?? '';
const baseOf = (name: string) => name.slice(0, name.length - endingOf(name).length);

/** Whether a name says that its file is still being written. */
export const isPartial = (name: string): boolean => PARTIAL.test(name);

/** Whether a file of this name is a video. */
export const isVideoName = (name: string): boolean => VIDEOS.includes(endingOf(name));

/** What a file beside a video is to it; undefined where it does not belong to it. */
function roleOf(name: string, video: string): 'markers' | 'captions' | 'picture' | undefined {
  const [base, stem] = [baseOf(name), baseOf(video)];
  const bare = base.replace(LANGUAGE, '').replace(/\.(?:markers|chapters)$/i, '');
  if (name === video || (base !== stem && bare !== stem)) return undefined;
  const ending = endingOf(name);
  if (PICTURES.includes(ending)) return base === stem ? 'picture' : undefined;
  const chapters = /\.(?:markers|chapters)$/i.test(base);
  if (ending === '.srt' || (ending === '.vtt' && !chapters)) return 'captions';
  return (MARKER_FILE_ENDINGS as readonly string[]).includes(ending) ? 'markers' : undefined;
}

/**
 * The videos of an inbox that are whole, each with what stands beside it. A file is at rest where its size is that of the
 * look before and nobody has changed it for a while; a video waits until everything of its name is at rest.
 * @param before the look before
 * @param restingSince files that were changed at or before this instant, in milliseconds, are at rest
 */
export function groupsAtRest(
  found: readonly FoundFile[],
  before: readonly FoundFile[],
  restingSince: number,
): InboxGroup[] {
  const sizes = new Map(before.map(({ name, size }) => [name, size]));
  const whole = ({ name, size, changedAt }: FoundFile) => sizes.get(name) === size && changedAt <= restingSince;
  const named = found.filter(({ name }) => !isPartial(name));
  return named
    .filter(({ name }) => isVideoName(name))
    .flatMap((video): InboxGroup[] => {
      const beside = named.filter(({ name }) => roleOf(name, video.name) !== undefined);
      // A second video of the same name, as clip.mov beside clip.mp4, is a video of its own.
      if (![video, ...beside].every(whole) || video.size === 0) return [];
      const of = (role: ReturnType<typeof roleOf>) =>
        beside.map(({ name }) => name).filter((name) => roleOf(name, video.name) === role);
      return [
        {
          video: video.name,
          markers: of('markers'),
          captions: of('captions').map((name) => ({ name, language: LANGUAGE.exec(baseOf(name))?.[1] })),
          picture: of('picture')[0],
        },
      ];
    });
}

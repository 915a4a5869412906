import type { EncodeSettings, FileHabit, FileSet } from './settings';

/** What a set asks for where it says nothing else. */
export const PLAIN_SETTINGS: EncodeSettings = {
  container: 'mp4',
  codec: 'h264',
  size: { way: 'keep' },
  rate: null,
  control: { way: 'by size' },
  sound: { codec: 'aac', kilobits: 192, sampleRate: 48_000, loudness: null },
};

const made = (settings: Partial<EncodeSettings>): EncodeSettings => ({ ...PLAIN_SETTINGS, ...settings });

/** Sets that everyone has, by kind of video. Their rates are common practice, no source, where nothing else is said. */
export const READY_SETS: readonly FileSet[] = [
  {
    id: 'talk',
    name: 'Talk',
    says: 'Small and quick to upload; plays well on a phone',
    settings: made({
      size: { way: 'at most', lines: 720 },
      control: { way: 'variable', kilobits: 2000, ceiling: 3000 },
      sound: { codec: 'aac', kilobits: 128, sampleRate: 48_000, loudness: null },
    }),
  },
  {
    id: 'screen',
    name: 'Screen',
    says: 'A recorded screen: letters stay sharp, and what stands still takes little',
    // The quality is ours: x264's own middle is 23, and letters want more.
    settings: made({ control: { way: 'quality', quality: 19 } }),
  },
  {
    id: 'action',
    name: 'Action',
    says: 'Much that moves, at 1080 lines and up to 60 frames a second',
    settings: made({
      size: { way: 'at most', lines: 1080 },
      control: { way: 'variable', kilobits: 26_000, ceiling: 30_000 },
    }),
  },
  {
    id: 'trailer',
    name: 'Trailer',
    says: 'All the bits it can use, at its own size',
    settings: made({ sound: { codec: 'aac', kilobits: 320, sampleRate: 48_000, loudness: null } }),
  },
  {
    id: 'upright',
    name: 'Upright',
    says: '9:16 for phones; you place its frame over the picture',
    settings: made({ shape: 'upright', size: { way: 'at most', lines: 1080 } }),
  },
  {
    id: 'square',
    name: 'Square',
    says: 'Cut to a square; you place its frame over the picture',
    settings: made({ shape: 'square', size: { way: 'at most', lines: 1080 } }),
  },
];

/** The set that a habit names, among the ready ones and these. */
export function setOf(habit: FileHabit, own: readonly FileSet[]): FileSet | undefined {
  if (habit.way === 'keep') return undefined;
  return [...READY_SETS, ...own].find(({ id }) => id === habit.set);
}

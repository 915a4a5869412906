import { codecName, containerName } from '../delivery';
import type { Shape } from '../framing';
import type { Fraction } from '../time';

/** Containers that can be written. */
export const CONTAINERS = ['mp4', 'mov', 'mkv', 'webm'] as const;
export type Container = (typeof CONTAINERS)[number];

/** Codecs that pictures can be encoded with, by ffmpeg's names. */
export const PICTURE_CODECS = ['h264', 'hevc', 'vp9'] as const;
export type PictureCodec = (typeof PICTURE_CODECS)[number];

/** Codecs that sound can be encoded with. */
export const SOUND_CODECS = ['aac', 'opus'] as const;
export type SoundCodec = (typeof SOUND_CODECS)[number];

export const SAMPLE_RATES = [44_100, 48_000] as const;

/** Lines of the picture, by its shorter side, so that an upright picture counts as a wide one does. */
export type FrameSize = { way: 'keep' } | { way: 'at most' | 'exactly'; lines: number };

/** How many bits the picture gets. `kilobits` and `ceiling` in kilobits a second. */
export type RateControl =
  /** What is good for the size and rate of its frames. */
  | { way: 'by size' }
  /** So many on the whole, more for fast parts, but never above the ceiling. */
  | { way: 'variable'; kilobits: number; ceiling: number }
  /** As many as it takes to look equally good throughout; lower is better, as x264 counts it. */
  | { way: 'quality'; quality: number };

export interface SoundSettings {
  codec: SoundCodec;
  kilobits: number;
  /** Hertz, or the file's own. */
  sampleRate: (typeof SAMPLE_RATES)[number] | null;
  /** The loudness to bring it to, in LUFS; null leaves it. */
  loudness: number | null;
}

/** How a file for a site is to be encoded. */
export interface EncodeSettings {
  container: Container;
  codec: PictureCodec;
  /** The shape that a wide picture is framed to; its own where not given. */
  shape?: Shape;
  size: FrameSize;
  /** Frames a second, or null for the file's own. */
  rate: Fraction | null;
  control: RateControl;
  /** Graphics hardware encodes it where it can: quicker, and larger for the same look. */
  hardware?: true;
  sound: SoundSettings;
}

/** File settings under the name that they are chosen by. */
export interface FileSet {
  id: string;
  name: string;
  /** For what kind of video they are. */
  says: string;
  settings: EncodeSettings;
}

/** What a layer says of files: they stay as they are where a site takes them so, or are made by a set. */
export type FileHabit = { way: 'keep' } | { way: 'set'; set: string };

/** What can stand in each container, by ffmpeg's names of codecs. */
export const HOLDS: Record<Container, { picture: readonly string[]; sound: readonly string[] }> = {
  // The registration authority's list (mp4ra.org) has more; these are what players of MP4 take (common practice, no source).
  mp4: { picture: ['h264', 'hevc', 'av1', 'vp9', 'mpeg4'], sound: ['aac', 'mp3', 'ac3', 'alac'] },
  mov: { picture: ['h264', 'hevc', 'prores', 'mpeg4'], sound: ['aac', 'mp3', 'ac3', 'alac', 'pcm_s16le', 'pcm_s24le'] },
  mkv: {
    picture: ['h264', 'hevc', 'av1', 'vp9', 'vp8', 'prores', 'mpeg4'],
    sound: ['aac', 'mp3', 'ac3', 'opus', 'vorbis', 'flac', 'pcm_s16le', 'pcm_s24le'],
  },
  // The WebM Project's container guidelines, from memory.
  webm: { picture: ['vp8', 'vp9', 'av1'], sound: ['opus', 'vorbis'] },
};

/** Why settings cannot be met by any file, with the nearest that can; undefined where they can. */
export function settingsTrouble({ container, codec, control, sound }: EncodeSettings): string | undefined {
  const holds = HOLDS[container];
  if (!holds.picture.includes(codec)) {
    const other = PICTURE_CODECS.find((each) => holds.picture.includes(each));
    return `${containerName(container)} cannot hold ${codecName(codec)}. Choose ${codecName(other ?? 'h264')}, or MP4`;
  }
  if (!holds.sound.includes(sound.codec)) {
    const other = SOUND_CODECS.find((each) => holds.sound.includes(each));
    return `${containerName(container)} cannot hold ${codecName(sound.codec)}. Choose ${codecName(other ?? 'aac')} for the sound`;
  }
  if (control.way === 'variable' && control.ceiling < control.kilobits) {
    return `The ceiling lies below the target. Set it to ${control.kilobits} kbit/s or more`;
  }
  return undefined;
}

import type { Fraction } from '../time';

/** The picture of a cut: size in pixels, `rate` in exact frames a second. */
export interface VideoFacts {
  codec: string;
  profile: string;
  width: number;
  height: number;
  rate: Fraction;
  pixelFormat: string;
  /** Bits a second, or undefined where the file does not say. */
  bitRate: number | undefined;
}

/** The sound of a cut: `sampleRate` in Hz. */
export interface AudioFacts {
  codec: string;
  sampleRate: number;
  channels: number;
  bitRate: number | undefined;
}

/** What a file was found to be. `container` is one of mp4, mov, mkv, webm, or what ffprobe calls it. */
export interface CutFacts {
  container: string;
  /** Exact seconds. */
  duration: Fraction;
  /** Bytes. */
  size: number;
  /** Bits a second of the whole file. */
  bitRate: number | undefined;
  video: VideoFacts;
  audio: AudioFacts | undefined;
  /** How many chapters stand inside the file; not told of cuts that were read before this was asked. */
  chaptersInside?: number;
}

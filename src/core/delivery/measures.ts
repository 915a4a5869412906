import type { Fraction } from '../time';

/** A part of a cut: exact seconds from its first frame. */
export interface CutSpan {
  from: Fraction;
  to: Fraction;
}

/** What a cut sounds like over time, where its shots begin, and what else one pass over it finds. */
export interface CutMeasures {
  loudness: {
    /** Whole milliseconds of each step. */
    step: number;
    /** Momentary loudness in LUFS (EBU R 128), the loudest of each step, in whole tenths. */
    tenths: number[];
  };
  /** Frame numbers at which a new shot begins, counted from the cut's first frame. */
  shots: number[];
  /** Not of cuts that were measured before this was asked. */
  picture?: PictureMeasures;
  /** The same; undefined where there is no sound. */
  sound?: SoundMeasures;
  /** The same: the bits of the picture. */
  bits?: BitMeasures;
}

/** How many bits a second the picture takes, over time. */
export interface BitMeasures {
  /** Whole milliseconds of each step. */
  step: number;
  /** Kilobits a second, the mean of each step. */
  kilobits: number[];
}

/** What one pass finds of the picture. */
export interface PictureMeasures {
  /** Where its last frame ends. */
  end: Fraction;
  /** Whether frames do not last equally long. */
  varies: boolean;
  black: CutSpan[];
  /** Where nothing moves; where it is black, too. */
  frozen: CutSpan[];
}

/** What one pass finds of the sound. */
export interface SoundMeasures {
  /** Where its last sample ends. */
  end: Fraction;
  /** Integrated loudness in LUFS (ITU-R BS.1770-4); undefined where nothing is loud enough to count. */
  integratedLufs: number | undefined;
  /** Loudness range in LU (EBU Tech 3342). */
  rangeLu: number;
  /** The highest true peak in dBTP (ITU-R BS.1770-4, annex 2). */
  truePeakDbtp: number;
  /** Of each channel: the mean over all of it, and its highest sample, in dB of full scale. */
  channels: { meanDb: number; peakDb: number }[];
  /** Samples at full scale, all channels together. */
  clippedSamples: number;
  /** Of two channels: how far they go together, from −1 (one is the other turned over) to 1 (they are the same). */
  together: number | undefined;
  silent: CutSpan[];
}

/** Below this, in LUFS, nothing is heard on a ruler (EBU R 128 gates at −70). */
export const SILENCE = -70;

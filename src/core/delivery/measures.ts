/** What a cut sounds like over time, and where its shots begin. */
export interface CutMeasures {
  loudness: {
    /** Whole milliseconds of each step. */
    step: number;
    /** Momentary loudness in LUFS (EBU R 128), the loudest of each step, in whole tenths. */
    tenths: number[];
  };
  /** Frame numbers at which a new shot begins, counted from the cut's first frame. */
  shots: number[];
}

/** Below this, in LUFS, nothing is heard on a ruler (EBU R 128 gates at −70). */
export const SILENCE = -70;

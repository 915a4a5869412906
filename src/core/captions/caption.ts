/** One caption; times in whole milliseconds from the start of the cut, as both caption formats count. */
export interface Caption {
  from: number;
  to: number;
  /** Its lines, without tags. */
  lines: string[];
}

/** Captions as a file gives them. */
export interface CaptionFile {
  format: 'subrip' | 'webvtt';
  captions: Caption[];
}

/** Something about a caption that viewers would stumble over; `index` counts from 0. */
export interface CaptionFinding {
  index: number;
  what: string;
}

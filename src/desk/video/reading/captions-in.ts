import { type CaptionFinding, captionFindings, readCaptions, writeWebvttCaptions } from '@/core/captions';

/** A caption file that is to be read. */
export interface CaptionsAsked {
  bytes: Uint8Array;
  /** Length of the cut in milliseconds, where it is known. */
  duration: number | undefined;
}

/** Captions in the form in which they are kept, with what was found in them. */
export interface CaptionsRead {
  webvtt: string;
  findings: CaptionFinding[];
}

const MOST_FINDINGS = 200;

/** Reads a caption file. @throws MarkerFileError naming the line that cannot be read */
export function captionsIn({ bytes, duration }: CaptionsAsked): CaptionsRead {
  const { captions } = readCaptions(bytes);
  const findings = captionFindings(captions, duration).slice(0, MOST_FINDINGS);
  return { webvtt: writeWebvttCaptions(captions), findings };
}

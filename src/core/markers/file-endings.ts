/** File endings that are read, as a file picker takes them. */
export const MARKER_FILE_ENDINGS = [
  '.edl',
  '.otio',
  '.vtt',
  '.ffmeta',
  '.xml',
  '.json',
  '.csv',
  '.tsv',
  '.txt',
  '.srt',
] as const;

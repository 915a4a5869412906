/** Media types of containers: RFC 4337 for MP4, RFC 9559 for Matroska; the others as IANA lists or browsers use them. */
const TYPES: Record<string, string> = {
  mp4: 'video/mp4',
  mov: 'video/quicktime',
  mkv: 'video/matroska',
  webm: 'video/webm',
};

/** The media type of a file, by the ending of its name. */
export function mediaType(fileName: string): string {
  return TYPES[/\.([a-z0-9]+)$/i.exec(fileName)?.[1]?.toLowerCase() ?? ''] ?? 'application/octet-stream';
}

/** What every stand-in keeps of a video, whatever it calls the rest. */
export interface Hosted {
  id: string;
  channelId: string;
  /** What it was made with, so that the same request twice makes one. */
  key: string;
  fileName: string;
  size: number;
  stage: 'receiving' | 'queued' | 'first' | 'full' | 'ready' | 'failed';
  /** Share of the stage that is done. */
  progress: number;
  failure?: string;
  file?: { sha256: string; size: number };
  seconds?: number;
  /** What is ready of it, in the order in which it became so. */
  versions?: { of: 'picture' | 'thumbnail'; lines?: number; readyAt: string }[];
  thumbnail?: { type: string; sha256: string };
  publishedAt?: string;
  createdAt: string;
}

/** How Lanternfold calls who may see a video. */
export type Visibility = 'open' | 'by-link' | 'closed';

export interface Chapter {
  seconds: number;
  title: string;
}

/** A video as Lanternfold keeps it. */
export interface Video {
  id: string;
  channelId: string;
  /** The Idempotency-Key that it was made with. */
  key: string;
  fileName: string;
  size: number;
  title: string;
  description: string;
  tags: string[];
  visibility: Visibility;
  thumbnail?: { type: string; sha256: string };
  file?: { sha256: string; size: number };
  seconds?: number;
  stage: 'receiving' | 'queued' | 'first' | 'full' | 'ready' | 'failed';
  progress: number;
  failure?: string;
  checks: 'waiting' | 'passed' | 'matched';
  match?: { owner: string; from: number; to: number; wants: string };
  matchAccepted?: boolean;
  publishedAt?: string;
  createdAt: string;
}

export interface Playlist {
  id: string;
  channelId: string;
  key: string;
  title: string;
  videoIds: string[];
}

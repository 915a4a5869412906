import type { NoticeKind } from '@/core/notices';
import type { Database } from '@/store/database';
import type { Notice } from '@/store/notices/notices';
import { videosById } from '@/store/record/videos';
import { settings } from '@/store/settings';
import { allChannels } from '@/store/site/channels';
import { site } from '../site/session';

/** A notice as mail and webhooks tell it; the time is ISO 8601 in UTC. */
export interface NoticeToTell {
  kind: NoticeKind;
  at: string;
  /** The title of the video, or what else it is about. */
  video: string;
  /** How many videos it is about, this one among them. */
  count: number;
  /** Empty where it is about none. */
  channel: string;
  site: string;
  says: string;
  /** The page on which something can be done about it. */
  page: string;
}

/** Notices with the names that they are told by, in the order in which they are given. */
export async function noticesToTell(db: Database, notices: readonly Notice[]): Promise<NoticeToTell[]> {
  const [channels, videos] = await Promise.all([
    allChannels(db),
    videosById(db, [...new Set(notices.flatMap(({ of }) => ('dropId' in of ? of.videoId : [])))]),
  ]);
  const titles = new Map(videos.map(({ id, title }) => [id, title]));
  const base = `http://127.0.0.1:${settings().webPort}`;
  return notices.map(({ kind, at, of, says, count }) => {
    const head = { kind, says, at: at.toISOString() };
    if (!('dropId' in of)) {
      return { ...head, count: 1, video: of.about, channel: '', site: '', page: `${base}${of.page}` };
    }
    const channel = channels.find(({ id }) => id === of.channelId);
    return {
      ...head,
      count,
      video: titles.get(of.videoId) || 'Without a title',
      channel: channel?.name ?? '',
      site: channel ? site(channel.site).profile.name : '',
      page: `${base}${count > 1 ? '/' : `/drops/${of.dropId}`}`,
    };
  });
}

import { number, object } from 'yup';
import { type NoticeKind, type NoticeSettings, type NoticeWay, tellAt, tells } from '@/core/notices';
import { database } from '@/store/database';
import { announce } from '@/store/feed';
import { noticeSettings, noticeWays } from '@/store/notices/notice-settings';
import {
  channelOf,
  deliveryTrouble,
  noticesById,
  noticesKept,
  seeNotices,
  unseenNotices,
} from '@/store/notices/notices';
import { allChannels } from '@/store/site/channels';
import { type NoticeToTell, noticesToTell } from '../notices/notice-to-tell';
import { channelView } from './look';

/** A notice in the page. */
export interface NoticeView extends Omit<NoticeToTell, 'page'> {
  id: number;
  kind: NoticeKind;
  /** The path of the page that it is about. */
  leadsTo: string;
  seen: boolean;
}

export interface NoticesView {
  notices: NoticeView[];
  /** Whether there are older ones. */
  more: boolean;
  unseen: number;
}

export interface NoticeSettingsView {
  settings: NoticeSettings;
  hasPassword: boolean;
  /** What webhooks are signed with, for the other side to know; undefined where there is none yet. */
  secret: string | undefined;
  trouble: { way: NoticeWay; count: number; trouble: string }[];
  channels: { id: string; name: string; siteName: string }[];
}

const MOST = 50;

const beforeShape = number().integer().min(1);

/** What was told, the newest first. @param before the last that is shown already */
export async function lookAtNotices(before?: unknown): Promise<NoticesView> {
  const db = database();
  const last = await beforeShape.validate(before ?? undefined);
  const kept = await noticesKept(db, MOST + 1, last);
  const shown = kept.slice(0, MOST);
  const told = await noticesToTell(db, shown);
  return {
    notices: shown.flatMap(({ id, of, seenAt }, index) => {
      const notice = told[index];
      if (!notice) return [];
      const { page: _, ...rest } = notice;
      const leadsTo = 'dropId' in of ? `/drops/${of.dropId}` : of.page;
      return [{ ...rest, id, leadsTo, seen: seenAt !== undefined }];
    }),
    more: kept.length > MOST,
    unseen: await unseenNotices(db),
  };
}

/** What the browser may say. */
export interface BrowserNoticesView {
  /** Only of the kinds and channels that it is to tell of; none in quiet hours. */
  notices: NoticeView[];
  /** The newest that there is, told of or not: what comes next is after it. */
  upTo: number;
  /** Until quiet hours are over; undefined outside them. */
  quietMilliseconds: number | undefined;
}

/** The newest of what the browser may say now, or when to ask again. */
export async function lookAtBrowserNotices(): Promise<BrowserNoticesView> {
  const db = database();
  const settings = await noticeWays(db);
  const all = await lookAtNotices();
  const upTo = all.notices[0]?.id ?? 0;
  const now = new Date();
  const quietMilliseconds = tellAt(now, settings, 'browser').getTime() - now.getTime();
  if (quietMilliseconds > 0) return { notices: [], upTo, quietMilliseconds };
  const kept = await noticesById(
    db,
    all.notices.map(({ id }) => id),
  );
  const told = new Set(
    kept
      .filter((notice) => tells(settings, 'browser', { kind: notice.kind, channelId: channelOf(notice) }))
      .map(({ id }) => id),
  );
  return { notices: all.notices.filter(({ id }) => told.has(id)), upTo, quietMilliseconds: undefined };
}

/** How many nobody has seen, and whether the browser is to show new ones. */
export async function lookAtUnseen(): Promise<{ unseen: number; browser: boolean }> {
  const db = database();
  const settings = await noticeWays(db);
  return { unseen: await unseenNotices(db), browser: settings.browser.on };
}

/** How a manager is told, without what is secret but the webhook's. */
export async function lookAtNoticeSettings(): Promise<NoticeSettingsView> {
  const db = database();
  const [{ settings, password, secret }, channels, trouble] = await Promise.all([
    noticeSettings(db),
    allChannels(db),
    deliveryTrouble(db),
  ]);
  return {
    settings,
    secret,
    hasPassword: password !== undefined,
    trouble: trouble.filter(({ trouble: says }) => says !== ''),
    channels: channels.map(channelView).map(({ id, name, siteName }) => ({ id, name, siteName })),
  };
}

const seenShape = object({ upTo: number().integer().min(1).required() }).noUnknown();

/** Notes that a person has seen everything up to one. */
export async function seeAll(input: unknown): Promise<void> {
  const { upTo } = await seenShape.validate(input, { stripUnknown: false });
  await seeNotices(database(), upTo);
  await announce(database(), 'notices', 'seen');
}

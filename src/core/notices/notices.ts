import { holdsAt, type LimitHours, minuteOfDay } from '../line';

/**
 * What a manager is told of: what waits for a person, what went live, what missed its moment, what somebody changed there, what
 * was done in a while.
 */
export const NOTICE_KINDS = ['needs you', 'live', 'missed', 'changed', 'done'] as const;
export type NoticeKind = (typeof NOTICE_KINDS)[number];

/** Ways beside the list in the page, which has everything. */
export const NOTICE_WAYS = ['browser', 'email', 'webhook'] as const;
export type NoticeWay = (typeof NOTICE_WAYS)[number];

/** How often mail comes: each thing by itself, or what there is every hour or once a day. */
export const DIGESTS = ['each', 'hour', 'day'] as const;
export type Digest = (typeof DIGESTS)[number];

/** How a manager wants to be told. Passwords and secrets are kept apart. */
export interface NoticeSettings {
  email: { on: boolean; host: string; port: number; secure: boolean; user: string; from: string; to: string };
  webhook: { on: boolean; address: string };
  browser: { on: boolean };
  /** The kinds that each way tells. */
  kinds: Record<NoticeWay, NoticeKind[]>;
  /** Ids of channels that nothing is told of, but in the page. */
  silent: string[];
  /** Hours in which neither mail nor the browser says anything; it is said after them. */
  quiet: LimitHours | null;
  digest: Digest;
  /** When the mail of a day comes: minutes after midnight, in a zone of the IANA data. */
  digestAt: { minute: number; zone: string };
}

/** Nothing is told anywhere but in the page until somebody sets it. */
export const PLAIN_NOTICES: NoticeSettings = {
  email: { on: false, host: '', port: 587, secure: false, user: '', from: '', to: '' },
  webhook: { on: false, address: '' },
  browser: { on: false },
  kinds: {
    browser: ['needs you', 'missed'],
    email: ['needs you', 'missed', 'live', 'changed'],
    webhook: [...NOTICE_KINDS],
  },
  silent: [],
  quiet: null,
  digest: 'each',
  digestAt: { minute: 480, zone: 'UTC' },
};

/** Whether a way tells of something. */
export function tells(
  settings: NoticeSettings,
  way: NoticeWay,
  { kind, channelId }: { kind: NoticeKind; channelId: string | undefined },
): boolean {
  if (!settings[way].on || !settings.kinds[way].includes(kind)) return false;
  return channelId === undefined || !settings.silent.includes(channelId);
}

const MINUTE = 60_000;
const DAY_MINUTES = 1440;

/** The first minute from an instant on, that one included, at which something holds; within a day and a bit. */
function firstMinute(from: Date, holds: (at: Date) => boolean): Date {
  let at = from;
  for (let minutes = 0; minutes <= DAY_MINUTES + 120 && !holds(at); minutes += 1) {
    // From the next full minute on, by the full minute.
    at = new Date(Math.floor(at.getTime() / MINUTE) * MINUTE + MINUTE);
  }
  return at;
}

/**
 * When a way is to tell of something that has happened: at once, when the next mail of many is due, and never in quiet hours.
 * A webhook speaks to machines, and knows neither.
 */
export function tellAt(now: Date, settings: NoticeSettings, way: NoticeWay): Date {
  if (way === 'webhook') return now;
  const { quiet, digest, digestAt } = settings;
  const due =
    way !== 'email' || digest === 'each'
      ? now
      : digest === 'hour'
        ? new Date(Math.floor(now.getTime() / (60 * MINUTE)) * 60 * MINUTE + 60 * MINUTE)
        : firstMinute(new Date(now.getTime() + 1), (at) => minuteOfDay(at, digestAt.zone) === digestAt.minute);
  if (!quiet || quiet.from === quiet.to) return due;
  return firstMinute(due, (at) => !holdsAt({ hours: quiet }, at));
}

/** Seconds until the next try of something that nobody has answered; undefined where it is given up: three days of tries. */
export function nextTell(tries: number, retryAfter?: number): number | undefined {
  const pauses = [10, 30, 120, 600, 1800, 3600, 4 * 3600, 12 * 3600, 24 * 3600, 24 * 3600];
  const pause = pauses[tries - 1];
  return pause === undefined ? undefined : Math.max(pause, retryAfter ?? 0);
}

import { array, boolean, mixed, number, object, string } from 'yup';
import { DIGESTS, NOTICE_KINDS, NOTICE_WAYS, type NoticeSettings, type NoticeWay, tellAt } from '@/core/notices';
import { databaseTime } from '@/store/clock';
import { database, transaction } from '@/store/database';
import { announce } from '@/store/feed';
import { keepNoticeSettings, noticeSettings } from '@/store/notices/notice-settings';
import { retimeDeliveries } from '@/store/notices/notices';
import { hastenJob } from '@/store/queue/jobs';
import { lockThing } from '@/store/queue/locks';
import { DeskError } from '../desk-error';
import { idShape } from '../id-shape';
import { isZone } from '../zone-shape';
import { sendMail } from './mail';
import { newSecret } from './signature';
import { postNotice } from './webhook';

const minute = () => number().integer().min(0).max(1439).required('Say a time of the day, such as 22:00.');
const zone = () => string().required().test('zone', 'This is no time zone.', isZone);
const kinds = () => array(string().oneOf(NOTICE_KINDS).required()).max(NOTICE_KINDS.length).required();
const mailAddress = (what: string) =>
  string().trim().max(320).email(`${what} is no mail address. Write it like name@example.org.`).defined();

const isWebAddress = (text: string | undefined) => {
  if (!text) return true;
  try {
    return ['http:', 'https:'].includes(new URL(text).protocol);
  } catch {
    return false;
  }
};

const settingsShape = object({
  email: object({
    on: boolean().required(),
    host: string().trim().max(253).defined(),
    port: number().integer().min(1, 'A port is from 1 to 65535.').max(65_535, 'A port is from 1 to 65535.').required(),
    secure: boolean().required(),
    user: string().trim().max(320).defined(),
    from: mailAddress('The sender'),
    to: mailAddress('The address to send to'),
  })
    .noUnknown()
    .required()
    .test('whole', 'To send mail, say the server, the sender and the address to send to.', (email) =>
      email.on ? email.host !== '' && email.from !== '' && email.to !== '' : true,
    ),
  webhook: object({
    on: boolean().required(),
    address: string()
      .trim()
      .max(2000)
      .defined()
      .test('web', 'A webhook’s address begins with http:// or https://.', isWebAddress),
  })
    .noUnknown()
    .required()
    .test('whole', 'To use a webhook, say its address.', (webhook) => !webhook.on || webhook.address !== ''),
  browser: object({ on: boolean().required() }).noUnknown().required(),
  kinds: object({ browser: kinds(), email: kinds(), webhook: kinds() }).noUnknown().required(),
  silent: array(idShape().required()).max(1000).required(),
  quiet: object({ from: minute(), to: minute(), zone: zone() }).noUnknown().nullable().defined(),
  digest: string().oneOf(DIGESTS).required(),
  digestAt: object({ minute: minute(), zone: zone() }).noUnknown().required(),
}).noUnknown();

const inputShape = object({
  /** What changes, by section and field; all else stays as it is, so that two windows do not undo each other. */
  set: mixed<PartlySet>((value): value is PartlySet => typeof value === 'object' && value !== null).required(),
  /** Of the mail server; left out, it stays as it was, and empty there is none. */
  password: string().max(500),
}).noUnknown();

type PartlySet = { [K in keyof NoticeSettings]?: Partial<NoticeSettings[K]> };

/** Sections whose fields change one by one. */
const SECTIONS = ['email', 'webhook', 'browser', 'kinds', 'digestAt'] as const;

function merged(before: NoticeSettings, set: PartlySet): unknown {
  const sections = SECTIONS.map((name) => [name, { ...before[name], ...set[name] }] as const);
  return { ...before, ...set, ...Object.fromEntries(sections) };
}

/** Sets how a manager is told. A webhook gets its secret with its first address. @throws ValidationError */
export async function setNotices(input: unknown): Promise<void> {
  const { set, password } = await inputShape.validate(input, { stripUnknown: false });
  await transaction(async (trx) => {
    await lockThing(trx, 'notices');
    const before = await noticeSettings(trx);
    const settings = await settingsShape.validate(merged(before.settings, set), { stripUnknown: false });
    await keepNoticeSettings(trx, {
      settings: settings as NoticeSettings,
      password: password === undefined ? before.password : password || undefined,
      secret: before.secret ?? (settings.webhook.address ? newSecret() : undefined),
    });
    // What waits for the next mail, or for the end of quiet hours, goes by what holds now.
    await retimeDeliveries(trx, 'email', tellAt(await databaseTime(trx), settings as NoticeSettings, 'email'));
    await hastenJob(trx, 'tell', 'email');
    await announce(trx, 'notices', 'settings');
  });
}

/** Gives webhooks another secret: what is signed from then on has to be checked with it. */
export async function renewWebhookSecret(): Promise<void> {
  await transaction(async (trx) => {
    await lockThing(trx, 'notices');
    await keepNoticeSettings(trx, { ...(await noticeSettings(trx)), secret: newSecret() });
    await announce(trx, 'notices', 'settings');
  });
}

const trialShape = object({ way: string().oneOf(NOTICE_WAYS).required() }).noUnknown();

/** Tells a trial notice at once, so that a person sees whether a way works. @throws DeskError with what went wrong */
export async function tryNotice(input: unknown): Promise<void> {
  const { way } = await trialShape.validate(input, { stripUnknown: false });
  const { settings, password, secret } = await noticeSettings(database());
  const trial = {
    ...{ kind: 'live' as const, at: new Date().toISOString(), video: 'A trial', count: 1 },
    ...{ channel: 'no channel', site: '', says: 'This is a trial of your notices.', page: '' },
  };
  const id = `trial-${Date.now()}`;
  const ways: Record<NoticeWay, () => Promise<void>> = {
    browser: async () => undefined,
    email: () => sendMail(settings.email, password, { subject: 'A trial of your notices', text: trial.says }, id),
    webhook: () => postNotice(settings.webhook.address, secret ?? '', id, trial),
  };
  try {
    await ways[way]();
  } catch (error) {
    throw new DeskError('site', `The trial did not arrive: ${(error as Error).message}.`);
  }
}

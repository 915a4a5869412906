import nodemailer from 'nodemailer';
import type { NoticeKind, NoticeSettings } from '@/core/notices';
import type { NoticeToTell } from './notice-to-tell';

const PATIENCE_MILLISECONDS = 15_000;

const KIND_WORDS: Record<NoticeKind, string> = {
  'needs you': 'needs you',
  live: 'is live',
  missed: 'did not open in time',
  changed: 'was changed',
  done: 'is done',
};

const MANY_WORDS: Record<NoticeKind, string> = {
  'needs you': 'they need you',
  live: 'they are live',
  missed: 'they did not open in time',
  changed: 'they were changed',
  done: 'they are done',
};

const oneLine = (text: string) => text.replace(/[\r\n]+/g, ' ');

/** What a mail about some notices says: of one its subject, of several how many. */
export function mailOf(notices: readonly NoticeToTell[]): { subject: string; text: string } {
  const [first] = notices;
  const about = ({ video, channel, kind, count }: NoticeToTell) =>
    oneLine(
      channel === ''
        ? `${video}: ${KIND_WORDS[kind]}`
        : count > 1
          ? `${count.toLocaleString('en')} videos on ${channel}: ${MANY_WORDS[kind]}`
          : `“${video}” ${KIND_WORDS[kind]} on ${channel}`,
    );
  const need = notices.filter(({ kind }) => kind !== 'live' && kind !== 'done').length;
  const subject =
    notices.length === 1 && first ? about(first) : `${notices.length} notices${need > 0 ? `, ${need} to look at` : ''}`;
  const text = notices
    .map((notice) => `${about(notice)}${notice.site && ` (${notice.site})`}\n${notice.says}\n${notice.page}`)
    .join('\n\n');
  return { subject, text: `${text}\n\nSent by Kettle Drop. You can change what is sent under Notices.\n` };
}

/**
 * Sends one mail.
 * @throws Error with what the server said, or that it does not answer
 */
export async function sendMail(
  email: NoticeSettings['email'],
  password: string | undefined,
  mail: { subject: string; text: string },
  id: string,
): Promise<void> {
  const { host, port, secure, user, from, to } = email;
  const transport = nodemailer.createTransport({
    ...{ host, port, secure },
    ...(user ? { auth: { user, pass: password ?? '' } } : {}),
    ...{ connectionTimeout: PATIENCE_MILLISECONDS, greetingTimeout: PATIENCE_MILLISECONDS },
    ...{ socketTimeout: PATIENCE_MILLISECONDS, disableFileAccess: true, disableUrlAccess: true },
  });
  try {
    // The same for every try, so that mail programs show once what came twice (RFC 5322, 3.6.4).
    await transport.sendMail({ from, to, ...mail, messageId: `<${id}@kettle-drop.localhost>` });
  } finally {
    transport.close();
  }
}

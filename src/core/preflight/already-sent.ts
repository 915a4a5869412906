import type { Finding } from './finding';

/** That much the same video went to some channels before. @param title of the other one */
export function alreadySent(title: string, channels: readonly string[]): Finding {
  const where = new Intl.ListFormat('en').format(channels);
  return {
    rule: 'already sent',
    level: 'warns',
    what: `Much the same video is on ${where} already: “${title}”`,
    why: 'Its viewers would get it twice.',
    remedy: 'Look at both before you send it',
  };
}

import type { Privacy } from '../../delivery';
import type { Part, PartLine } from '../part';
import { isSame } from '../same';

const WORDS: Record<Privacy, string> = {
  everyone: 'everyone',
  link: 'by link only',
  password: 'with a password',
  private: 'private',
};

export const privacy: Part<'privacy'> = {
  label: 'privacy',
  place: 'privacy',
  mustBeRight: true,
  wanted: (from) => ({ to: from.privacy, ...(from.passwordMark && { passwordMark: from.passwordMark }) }),
  same: isSame,
  changes(was, is) {
    if (!was) return [{ field: 'privacy', was: '', is: WORDS[is.to] }];
    const lines: PartLine[] = [];
    if (was.to !== is.to) lines.push({ field: 'privacy', was: WORDS[was.to], is: WORDS[is.to] });
    // One that comes or goes is told by the privacy.
    if (was.passwordMark && is.passwordMark && was.passwordMark !== is.passwordMark) {
      lines.push({ field: 'password', was: 'the one before', is: 'another one' });
    }
    return lines;
  },
  // A site that opens by itself may have done so already.
  expected: ({ to }, site) => (site.opensItself ? undefined : to),
  differences: (meant, shown) =>
    meant === shown ? [] : [{ field: 'privacy', was: WORDS[meant], is: shown ? WORDS[shown] : 'nothing' }],
};

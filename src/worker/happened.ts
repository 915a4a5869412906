import type { Happened } from '@/core/work';
import { MachineError, TooLong } from '@/media/program';
import { SiteError } from '@/sites/contract';
import { isDatabaseAway } from '@/store/database';

/** Errors of the system that are the machine's: no room, no memory, too many files open, a disk that cannot be written. */
const MACHINE_CODES = ['ENOSPC', 'EDQUOT', 'ENOMEM', 'EMFILE', 'ENFILE', 'EROFS', 'EACCES', 'EIO', 'EAGAIN'];

/** What an error says has happened, for the one policy of what follows. */
export function happenedBy(error: unknown): Happened {
  if (error instanceof SiteError) {
    if (error.kind === 'busy') return { what: 'busy', retryAfter: error.retryAfter };
    if (error.kind === 'unreachable') return { what: 'unreachable' };
    return { what: error.kind === 'conflict' ? 'unexpected' : 'refused' };
  }
  if (error instanceof MachineError || isDatabaseAway(error)) return { what: 'machine' };
  if (error instanceof TooLong) return { what: 'too long' };
  const { code } = (error ?? {}) as { code?: unknown };
  return { what: MACHINE_CODES.includes(String(code)) ? 'machine' : 'unexpected' };
}

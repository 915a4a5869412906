import { type LineLimit, shareOfLine } from '@/core/line';
import { database } from '@/store/database';
import { allLineLimits, uploadsUnderWay } from '@/store/queue/line-limits';

const LOOK_MILLISECONDS = 700;

let [limits, underWay]: [LineLimit[], Map<string, number>] = [[], new Map()];
let uploads = 0;
let clock: NodeJS.Timeout | undefined;

async function look(): Promise<void> {
  const db = database();
  limits = await allLineLimits(db);
  underWay = limits.length > 0 ? await uploadsUnderWay(db) : new Map();
}

/**
 * Follows what an upload to a channel may take of the line; limits are read again within a second.
 * @returns the bytes a second that it may take now, undefined without a limit; and an end
 */
export async function followLine(channelId: string): Promise<{ rate: () => number | undefined; end: () => void }> {
  await look();
  uploads += 1;
  clock ??= setInterval(() => void look().catch(() => undefined), LOOK_MILLISECONDS);
  return {
    rate() {
      const counts = [...underWay.values()];
      const inAll = counts.reduce((sum, count) => sum + count, 0);
      return shareOfLine(limits, channelId, { onChannel: underWay.get(channelId) ?? 1, inAll }, new Date());
    },
    end() {
      uploads -= 1;
      if (uploads > 0) return;
      clearInterval(clock);
      clock = undefined;
    },
  };
}

import { setTimeout as pause } from 'node:timers/promises';
import type { DropState } from '@/core/drop';
import { lookAtSheet } from '@/desk/views/look-at-sheet';

const ENDS: readonly DropState[] = ['live', 'held', 'snag', 'removed', 'draft'];

/** Prints every step of a video's drops until nothing moves; exit 1 where one has a snag. */
export async function watch(videoId: string): Promise<void> {
  let last = 0;
  const linked = new Set<string>();
  for (;;) {
    const { channels } = await lookAtSheet(videoId);
    const sent = channels.filter(({ drop }) => drop && drop.state !== 'draft');
    const several = sent.length > 1;
    const events = sent.flatMap(({ name, events: own }) => own.map((event) => ({ ...event, name })));
    for (const event of events.filter(({ id }) => id > last).sort((a, b) => a.id - b.id)) {
      process.stdout.write(`${event.at}  ${several ? `${event.name}: ` : ''}${event.says}\n`);
      last = event.id;
    }
    for (const { drop, name } of sent) {
      if (!drop?.link || linked.has(drop.id)) continue;
      process.stdout.write(`Link: ${drop.link}${several ? ` (${name})` : ''}\n`);
      linked.add(drop.id);
    }
    if (sent.some(({ drop }) => drop?.state === 'snag')) process.exitCode = 1;
    if (sent.every(({ drop }) => drop && ENDS.includes(drop.state) && !drop.onWord && !drop.giving)) return;
    await pause(300);
  }
}

import { setTimeout as pause } from 'node:timers/promises';
import { number } from 'yup';
import { guarded } from '@/app/guard';
import { hearChanges } from '@/desk/views/hear';

export const dynamic = 'force-dynamic';

const KEEP_ALIVE_MILLISECONDS = 15_000;
/** The longest that a page may have been read before it listens. */
const LONGEST_AGO = 10 * 60_000;
/** So many changes of one thing are told apart in a batch. */
const MOST_NUMBERS = 20;

const agoShape = number().integer().min(0).max(LONGEST_AGO).default(0);

/**
 * Server-sent events (WHATWG HTML, 9.2): one `change` for each batch of things that have changed, with the numbers of each
 * thing’s changes, or none where these are many. The next is made only when
 * the last has been taken, so that a page on a slow line, or one that sleeps, holds no more here than the names of what changed.
 */
export const GET = guarded(async (request) => {
  const ago = await agoShape.validate(new URL(request.url).searchParams.get('ago') ?? undefined);
  const changed = new Map<string, number[]>();
  const ended = new AbortController();
  let wake = () => {};
  const unhear = hearChanges((entries) => {
    for (const { id, topic, subject } of entries) {
      const about = `${topic}:${subject}`;
      const ids = changed.get(about);
      if (!ids) changed.set(about, [id]);
      else if (ids.length <= MOST_NUMBERS) ids.push(id);
    }
    wake();
  }, ago);
  const end = () => {
    unhear();
    ended.abort();
    wake();
  };
  request.signal.addEventListener('abort', end);
  const somethingChanged = () =>
    new Promise<void>((resolve) => {
      wake = resolve;
      if (changed.size > 0 || ended.signal.aborted) resolve();
    });
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>(
    {
      start: (controller) => controller.enqueue(encoder.encode('retry: 1000\n\n')),
      async pull(controller) {
        const quiet = new AbortController();
        const alive = pause(KEEP_ALIVE_MILLISECONDS, undefined, { signal: quiet.signal }).catch(() => undefined);
        await Promise.race([somethingChanged(), alive]);
        quiet.abort();
        if (ended.signal.aborted) return controller.close();
        const about = JSON.stringify([...changed].map(([name, ids]) => [name, ids.length > MOST_NUMBERS ? [] : ids]));
        controller.enqueue(
          encoder.encode(changed.size > 0 ? `event: change\ndata: ${about}\n\n` : 'event: alive\ndata: 1\n\n'),
        );
        changed.clear();
      },
      cancel: end,
    },
    { highWaterMark: 1 },
  );
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' },
  });
});

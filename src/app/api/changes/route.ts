import { number } from 'yup';
import { guarded } from '@/app/guard';
import { hearChanges } from '@/desk/look/hear';

export const dynamic = 'force-dynamic';

const KEEP_ALIVE_MILLISECONDS = 15_000;
/** The longest that a page may have been read before it listens. */
const LONGEST_AGO = 10 * 60_000;

/** Server-sent events (WHATWG HTML, 9.2): one `change` for each batch of things that have changed. */
const agoShape = number().integer().min(0).max(LONGEST_AGO).default(0);

export const GET = guarded(async (request) => {
  const ago = await agoShape.validate(new URL(request.url).searchParams.get('ago') ?? undefined);
  let stop = () => {};
  const stream = new ReadableStream<Uint8Array>({
    start(controller) {
      const encoder = new TextEncoder();
      const say = (text: string) => {
        try {
          controller.enqueue(encoder.encode(text));
        } catch {
          stop();
        }
      };
      const unhear = hearChanges((entries) => {
        const about = [...new Set(entries.map((entry) => `${entry.topic}:${entry.subject}`))];
        say(`event: change\ndata: ${JSON.stringify(about)}\n\n`);
      }, ago);
      const alive = setInterval(() => say(': alive\n\n'), KEEP_ALIVE_MILLISECONDS);
      stop = () => {
        unhear();
        clearInterval(alive);
      };
      request.signal.addEventListener('abort', () => {
        stop();
        controller.close();
      });
      say('retry: 1000\n\n');
    },
    cancel: () => stop(),
  });
  return new Response(stream, {
    headers: { 'content-type': 'text/event-stream', 'cache-control': 'no-cache, no-transform' },
  });
});

'use client';

/** What a page hears: what has changed, by topic and subject, and whether the line to Kettle Drop is there. */
export interface ChangeHearer {
  changed: (about: readonly string[]) => void;
  /** @param gap whether something may have changed that nobody has heard of */
  line: (is: 'there' | 'lost', gap: boolean) => void;
}

type Told = { about: string[] } | { line: 'there' | 'lost'; gap: boolean };

const NAME = 'kettle changes';
const LONGEST_AGO = 10 * 60_000;
const REOPEN_MILLISECONDS = 2000;

/**
 * Hears of changes by server-sent events, over one stream for all pages of a browser: it keeps no more than six lines to one
 * address (HTTP/1.1), and six pages with a stream each would leave none for anything else. One page has the stream and tells
 * the others; when it goes, the next takes it on, from where the last was heard.
 * @returns ends the hearing
 */
export function hearChanges(hearer: ChangeHearer): () => void {
  const ended = new AbortController();
  const channel = new BroadcastChannel(NAME);
  let heardAt = performance.timeOrigin;
  const take = (told: Told) => {
    heardAt = Date.now();
    if ('about' in told) hearer.changed(told.about);
    else hearer.line(told.line, told.gap);
  };
  channel.onmessage = ({ data }: MessageEvent<Told>) => take(data);

  let opened = false;
  const stream = () => {
    const ago = Math.min(LONGEST_AGO, Date.now() - Math.floor(heardAt) + 1000);
    const source = new EventSource(`/api/changes?ago=${ago}`);
    const tell = (told: Told) => {
      take(told);
      channel.postMessage(told);
    };
    source.addEventListener('change', ({ data }) => tell({ about: JSON.parse(data) as string[] }));
    source.addEventListener('open', () => {
      tell({ line: 'there', gap: opened });
      opened = true;
    });
    source.addEventListener('error', () => {
      tell({ line: 'lost', gap: false });
      // Refused with a status, as by a server that is just starting, a stream is not opened again by itself.
      if (source.readyState === EventSource.CLOSED && !ended.signal.aborted) setTimeout(reopen, REOPEN_MILLISECONDS);
    });
    current = source;
  };
  const reopen = () => {
    if (!ended.signal.aborted) stream();
  };
  let current: EventSource | undefined;
  ended.signal.addEventListener('abort', () => current?.close());
  const end = () => {
    ended.abort();
    channel.close();
  };
  // Only where a page is served over loopback or TLS has it locks (Web Locks, section 2.1).
  const locks = navigator.locks as LockManager | undefined;
  if (!locks) {
    stream();
    return end;
  }
  let isOurs = false;
  void locks
    .request(NAME, { signal: ended.signal }, () => {
      isOurs = true;
      stream();
      return new Promise<void>((resolve) => ended.signal.addEventListener('abort', () => resolve()));
    })
    .catch(() => undefined);
  // Whoever joins may have been read before the page that has the stream heard of a change.
  void locks.query().then(({ held = [] }) => {
    const isAnothers = !isOurs && held.some(({ name }) => name === NAME);
    if (isAnothers && !ended.signal.aborted) hearer.line('there', true);
  });
  return end;
}

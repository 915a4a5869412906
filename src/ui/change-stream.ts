'use client';

/** What has changed, as topic and subject, with the numbers of its changes; none where these are many. */
export type Changed = readonly [about: string, ids: readonly number[]];

/** What a page hears: what has changed, and whether the line to Kettle Drop is there. */
export interface ChangeHearer {
  changed: (about: readonly Changed[]) => void;
  /** @param gap whether something may have changed that nobody has heard of */
  line: (is: 'there' | 'lost', gap: boolean) => void;
}

type Told = { about: Changed[] } | { line: 'there' | 'lost'; gap: boolean };

const NAME = 'kettle changes';
const LONGEST_AGO = 10 * 60_000;
const REOPEN_MILLISECONDS = 2000;
/** Kettle Drop says each 15 s that it is there; a line on which nothing has come for so long is dead, though nobody has ended it. */
const QUIET_MILLISECONDS = 40_000;

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
    const again = () => {
      if (source === current) reopen();
    };
    const alive = () => {
      clearTimeout(quiet);
      quiet = setTimeout(() => {
        tell({ line: 'lost', gap: false });
        again();
      }, QUIET_MILLISECONDS);
    };
    alive();
    source.addEventListener('alive', alive);
    source.addEventListener('change', ({ data }) => {
      alive();
      tell({ about: JSON.parse(data) as Changed[] });
    });
    source.addEventListener('open', () => {
      alive();
      tell({ line: 'there', gap: opened });
      opened = true;
    });
    source.addEventListener('error', () => {
      tell({ line: 'lost', gap: false });
      // Refused with a status, as by a server that is just starting, a stream is not opened again by itself.
      if (source.readyState === EventSource.CLOSED) setTimeout(again, REOPEN_MILLISECONDS);
    });
    current = source;
  };
  const reopen = () => {
    if (ended.signal.aborted || !current) return;
    current.close();
    stream();
  };
  let current: EventSource | undefined;
  let quiet: ReturnType<typeof setTimeout> | undefined;
  const online = () => {
    if (current?.readyState !== EventSource.OPEN) reopen();
  };
  window.addEventListener('online', online);
  ended.signal.addEventListener('abort', () => {
    window.removeEventListener('online', online);
    clearTimeout(quiet);
    current?.close();
  });
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

import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { hearChanges } from './change-stream';

/** A stream of events that a test brings about. */
class Stream extends EventTarget {
  static readonly CLOSED = 2;
  static readonly OPEN = 1;
  static readonly opened: Stream[] = [];
  readyState = 0;
  constructor(readonly address: string) {
    super();
    Stream.opened.push(this);
  }
  close() {
    this.readyState = Stream.CLOSED;
  }
  says(name: string, data = '') {
    if (name === 'open') this.readyState = Stream.OPEN;
    this.dispatchEvent(new MessageEvent(name, { data }));
  }
}

const heard: string[] = [];
const window = new EventTarget();
let end = () => {};
const newest = () => Stream.opened.at(-1) as Stream;

beforeEach(() => {
  vi.useFakeTimers();
  vi.stubGlobal('EventSource', Stream);
  vi.stubGlobal('window', window);
  // Without locks each page has its own.
  vi.stubGlobal('navigator', {});
  heard.length = 0;
  Stream.opened.length = 0;
  end = hearChanges({
    changed: (about) => heard.push(about.map(([each, ids]) => `${each} ${ids}`).join()),
    line: (is, gap) => heard.push(`${is}${gap ? ', gap' : ''}`),
  });
});
afterEach(() => {
  end();
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('the line on which a page hears of changes', () => {
  it('is made anew where nothing comes on it any more, though nobody has ended it, and what was missed is read', () => {
    newest().says('open');
    newest().says('change', '[["video:1",[7,8]]]');
    vi.advanceTimersByTime(39_000);
    newest().says('alive', '1');
    vi.advanceTimersByTime(39_000);
    expect([heard, Stream.opened.length]).toEqual([['there', 'video:1 7,8'], 1]);
    vi.advanceTimersByTime(2000);
    expect(Stream.opened[0]?.readyState).toBe(Stream.CLOSED);
    newest().says('open');
    expect([heard, Stream.opened.length]).toEqual([['there', 'video:1 7,8', 'lost', 'there, gap'], 2]);
  });

  it('is made anew where it never came about', () => {
    vi.advanceTimersByTime(41_000);
    expect(Stream.opened).toHaveLength(2);
    vi.advanceTimersByTime(41_000);
    expect(Stream.opened).toHaveLength(3);
  });

  it('is opened again where it was refused, once, and left to the browser where that tries', () => {
    newest().says('error');
    vi.advanceTimersByTime(3000);
    expect(Stream.opened).toHaveLength(1);
    newest().readyState = Stream.CLOSED;
    newest().says('error');
    newest().says('error');
    vi.advanceTimersByTime(3000);
    expect(Stream.opened).toHaveLength(2);
  });

  it('is tried at once when the browser is on line again, and left as it is where it is there', () => {
    newest().says('error');
    window.dispatchEvent(new Event('online'));
    expect(Stream.opened).toHaveLength(2);
    newest().says('open');
    window.dispatchEvent(new Event('online'));
    expect(Stream.opened).toHaveLength(2);
  });

  it('is ended with the page, and never made again', () => {
    newest().says('open');
    end();
    expect(newest().readyState).toBe(Stream.CLOSED);
    window.dispatchEvent(new Event('online'));
    vi.advanceTimersByTime(100_000);
    expect(Stream.opened).toHaveLength(1);
  });
});

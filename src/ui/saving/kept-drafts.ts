import { WINDOW_ID } from '../window-id';

/** A text that was typed and is not saved yet, as the browser keeps it. */
export interface KeptDraft {
  text: string;
  /** When it was typed, in milliseconds since 1970. */
  at: number;
  window: string;
}

const PREFIX = 'kettle draft ';

/** Keeps a text in the browser until the server has it. A browser that keeps nothing is no error. */
export function keepDraft(key: string, text: string): void {
  const draft: KeptDraft = { text, at: Date.now(), window: WINDOW_ID };
  try {
    localStorage.setItem(PREFIX + key, JSON.stringify(draft));
  } catch {
    // Full, or switched off: the page still asks before it is left.
  }
}

/** Forgets a text that the server has, or that nobody wants. */
export function forgetDraft(key: string): void {
  try {
    localStorage.removeItem(PREFIX + key);
  } catch {
    // Nothing is kept there.
  }
}

/** A text that another window, or this page before it was closed, left behind. */
export function draftLeft(key: string): KeptDraft | undefined {
  try {
    const kept = JSON.parse(localStorage.getItem(PREFIX + key) ?? 'null') as KeptDraft | null;
    return kept && typeof kept.text === 'string' && kept.window !== WINDOW_ID ? kept : undefined;
  } catch {
    return undefined;
  }
}

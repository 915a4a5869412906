/** A text that was typed and is not saved yet, as the browser keeps it. */
export interface KeptDraft {
  /** What it is kept under: the field, and the place on a page at which it was typed. */
  slot: string;
  text: string;
  /** When it was typed, in milliseconds since 1970. */
  at: number;
}

const prefixOf = (key: string) => `kettle draft ${key} `;

/** What the browser keeps; nothing where it keeps none. */
function storage(): Storage | undefined {
  try {
    return window.localStorage;
  } catch {
    return undefined;
  }
}

/** Where one field on one page keeps its text: two windows never write over each other's. */
export const slotOf = (key: string, field: string): string => prefixOf(key) + field;

/** Keeps a text in the browser until the server has it. A browser that is full is no error: leaving still asks. */
export function keepDraft(slot: string, text: string): void {
  try {
    storage()?.setItem(slot, JSON.stringify({ text, at: Date.now() }));
  } catch {
    // Said by the page itself: it is not saved yet.
  }
}

/** Forgets a text that the server has, or that nobody wants. */
export function forgetDraft(slot: string): void {
  storage()?.removeItem(slot);
}

/** Texts of a field that were typed elsewhere, or before this page was opened, the newest first. @param but this page's own */
export function draftsLeft(key: string, but: string): KeptDraft[] {
  const kept = storage();
  if (!kept) return [];
  const slots = Object.keys(kept).filter((slot) => slot.startsWith(prefixOf(key)) && slot !== but);
  const drafts = slots.flatMap((slot): KeptDraft[] => {
    try {
      const { text, at } = JSON.parse(kept.getItem(slot) ?? 'null') as Partial<KeptDraft>;
      return typeof text === 'string' && typeof at === 'number' ? [{ slot, text, at }] : [];
    } catch {
      return [];
    }
  });
  return drafts.sort((a, b) => b.at - a.at);
}

import type { Active, Announcements, Over } from '@dnd-kit/core';

/** How what is dragged, and where it may be put, are called by those who hear it read out. */
export interface DragNames {
  /** What is dragged, as in “the tag spokeshave”. */
  what: (active: Active) => string;
  /** Where it is above, as in “Friday 4 December”. */
  where: (over: Over) => string;
}

/** What a drag says aloud: names, never ids. */
export function dragWords({ what, where }: DragNames): Announcements {
  return {
    onDragStart: ({ active }) => `You have picked up ${what(active)}.`,
    onDragOver: ({ active, over }) =>
      `${upper(what(active))} is ${over ? `at ${where(over)}` : 'nowhere it can stay'}.`,
    onDragEnd: ({ active, over }) =>
      over ? `${upper(what(active))} was put at ${where(over)}.` : `${upper(what(active))} stays where it was.`,
    onDragCancel: ({ active }) => `${upper(what(active))} stays where it was.`,
  };
}

const upper = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);

import { useState } from 'react';

/** For what lies over a page and was opened by no trigger of its own: gives the focus back to what had it before. */
export function useFocusBack() {
  const [before] = useState(() => document.activeElement);
  return (event: Event) => {
    event.preventDefault();
    if (before instanceof HTMLElement) before.focus();
  };
}

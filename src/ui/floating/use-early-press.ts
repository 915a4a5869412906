import { type KeyboardEvent, type PointerEvent, useState } from 'react';
import { useNotices } from '../notices';
import { loadFloating } from './use-floating';

const OPENING_KEYS = ['Enter', ' ', 'ArrowDown', 'ArrowUp'];

/** For a button whose list may still have to be loaded: a press and the focus that come first are kept. */
export function useEarlyPress() {
  const { trouble } = useNotices();
  const [pressed, setPressed] = useState(false);
  const [focused, setFocused] = useState(false);
  const press = () => {
    setPressed(true);
    loadFloating().catch(() => {
      setPressed(false);
      trouble('The list could not be loaded. Try again once Kettle Drop answers.');
    });
  };
  return {
    /** Whether it is to be open as soon as it is there. */
    pressed,
    /** Whether the button that takes the place of the first one has to have the focus. */
    focused,
    /** Of the button that stands there first. */
    early: {
      type: 'button' as const,
      'aria-expanded': false,
      onClick: press,
      onPointerDown: ({ button, ctrlKey }: PointerEvent) => button === 0 && !ctrlKey && press(),
      onKeyDown: (event: KeyboardEvent) => {
        if (!OPENING_KEYS.includes(event.key)) return;
        event.preventDefault();
        press();
      },
      onFocus: () => setFocused(true),
      onBlur: () => setFocused(false),
    },
  };
}

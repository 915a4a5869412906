'use client';

import { Redo2, Undo2 } from 'lucide-react';
import { Button } from './button';
import { BUTTONS } from './button-words';
import { isTyping } from './typing';
import { useKeys } from './use-keys';

interface UndoRedoProps {
  can: { canUndo: boolean; canRedo: boolean };
  undo: () => unknown;
  redo: () => unknown;
  /** What it takes back, where it is not the page itself: the keys are the page's. */
  of?: string;
}

/** Takes the last change back, or makes it again: by button and by key, unless somebody types. */
export function UndoRedo({ can, undo, redo, of }: UndoRedoProps) {
  const named = (button: string) => (of ? `${button} in ${of}` : button);
  useKeys((event) => {
    if (of) return;
    if (!(event.ctrlKey || event.metaKey) || event.key.toLowerCase() !== 'z' || isTyping(event.target)) return;
    event.preventDefault();
    void (event.shiftKey ? redo() : undo());
  });
  return (
    <>
      <Button
        look="plain"
        className="mx-0!"
        onClick={undo}
        aria-disabled={!can.canUndo}
        aria-label={named(BUTTONS.undo)}
        aria-keyshortcuts={of ? undefined : 'Control+Z'}
        data-tip={of ? BUTTONS.undo : 'Undo (Ctrl Z)'}
      >
        <Undo2 size={17} className={can.canUndo ? '' : 'opacity-40'} />
      </Button>
      <Button
        look="plain"
        className="mx-0!"
        onClick={redo}
        aria-disabled={!can.canRedo}
        aria-label={named(BUTTONS.redo)}
        aria-keyshortcuts={of ? undefined : 'Control+Shift+Z'}
        data-tip={of ? BUTTONS.redo : 'Redo (Ctrl Shift Z)'}
      >
        <Redo2 size={17} className={can.canRedo ? '' : 'opacity-40'} />
      </Button>
    </>
  );
}

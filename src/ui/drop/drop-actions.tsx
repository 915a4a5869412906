'use client';

import type { DropAction } from '@/desk/actions/act-on-drop';
import type { SheetChannel } from '@/desk/views/views';
import { Button } from '../button';
import { useSure } from '../sure';
import { actionWords } from './action-words';
import { questionBefore } from './questions';

interface DropActionsProps {
  channel: SheetChannel;
  drop: NonNullable<SheetChannel['drop']>;
  act: (action: DropAction) => Promise<unknown>;
  /** Actions that stand elsewhere on the page. */
  without?: readonly DropAction[];
}

/** What can be done with a drop now, each with what is asked before. */
export function DropActions({ channel, drop, act, without = [] }: DropActionsProps) {
  const sure = useSure();
  const actions = drop.actions.filter((action) => {
    if (without.includes(action)) return false;
    // What keeps the changes from going out is said elsewhere; they can be sent once it is settled.
    if (action === 'revise') return channel.changes.length > 0 && channel.missing.length === 0;
    if (action === 'new file' || action === 'new file, remove') return drop.otherFile;
    return action !== 'take over' || channel.layersChanged;
  });
  // What opens by itself at its time asks for nothing.
  const main = actions.find((action) => action === 'not yet' || (action === 'open' && !drop.opensAt));
  const press = async (action: DropAction) => {
    const question = questionBefore(action, channel, drop);
    if (question && !(await sure(question))) return;
    await act(action);
  };
  if (actions.length === 0) return null;
  return (
    <div className="flex flex-wrap gap-2">
      {actions.map((action) => (
        <Button
          key={action}
          look={action === main ? 'press' : action === 'remove' ? 'plain' : 'quiet'}
          onClick={() => void press(action)}
        >
          {actionWords(action, channel)}
        </Button>
      ))}
    </div>
  );
}

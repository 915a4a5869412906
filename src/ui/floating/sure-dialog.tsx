'use client';

import { AlertDialog } from 'radix-ui';
import { Button } from '../button';
import { BUTTONS } from '../button-words';
import type { Question } from '../sure-questions';
import { useFocusBack } from './use-focus-back';

/** A question that has to be answered before anything else is done. */
export function SureDialog({ question, onAnswer }: { question: Question; onAnswer: (sure: boolean) => void }) {
  const focusBack = useFocusBack();
  return (
    <AlertDialog.Root open onOpenChange={(open) => !open && onAnswer(false)}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
        <AlertDialog.Content
          onCloseAutoFocus={focusBack}
          className="enamel fixed top-[16vh] left-1/2 z-50 w-[min(480px,94vw)] -translate-x-1/2 p-6 shadow-xl"
        >
          <AlertDialog.Title className="mb-2 font-display font-semibold text-lg [overflow-wrap:anywhere]">
            {question.title}
          </AlertDialog.Title>
          <AlertDialog.Description asChild>
            <div className="grid gap-1.5">
              {question.follows.map((what) => (
                <p key={what}>{what}</p>
              ))}
            </div>
          </AlertDialog.Description>
          <div className="mt-5 flex flex-wrap gap-3">
            <AlertDialog.Action asChild>
              <Button look="press" onClick={() => onAnswer(true)}>
                {question.yes}
              </Button>
            </AlertDialog.Action>
            <AlertDialog.Cancel asChild>
              <Button look="quiet">{question.no ?? BUTTONS.notNow}</Button>
            </AlertDialog.Cancel>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}

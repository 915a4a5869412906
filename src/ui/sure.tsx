'use client';

import { AlertDialog } from 'radix-ui';
import { createContext, type ReactNode, useCallback, useContext, useState } from 'react';
import { Button } from './button';
import type { Question } from './sure-questions';

type AskSure = (question: Question) => Promise<boolean>;

const Context = createContext<AskSure>(async () => false);

/** Asks before something is done that others will see, or that cannot be taken back; says what follows. */
export const useSure = () => useContext(Context);

/** Keeps the question that is being asked. */
export function SureProvider({ children }: { children: ReactNode }) {
  const [questions, setQuestions] = useState<(Question & { answer: (sure: boolean) => void })[]>([]);
  const [asked] = questions;
  const ask = useCallback<AskSure>(
    (question) =>
      new Promise((resolve) => {
        const answer = (sure: boolean) => {
          setQuestions((all) => all.slice(1));
          resolve(sure);
        };
        setQuestions((all) => [...all, { ...question, answer }]);
      }),
    [],
  );
  return (
    <Context.Provider value={ask}>
      {children}
      {asked && (
        <AlertDialog.Root open onOpenChange={(open) => !open && asked.answer(false)}>
          <AlertDialog.Portal>
            <AlertDialog.Overlay className="fixed inset-0 z-40 bg-black/40" />
            <AlertDialog.Content className="enamel fixed top-[16vh] left-1/2 z-50 w-[min(480px,94vw)] -translate-x-1/2 p-6 shadow-xl">
              <AlertDialog.Title className="mb-2 font-display font-semibold text-lg [overflow-wrap:anywhere]">
                {asked.title}
              </AlertDialog.Title>
              <AlertDialog.Description asChild>
                <div className="grid gap-1.5">
                  {asked.follows.map((what) => (
                    <p key={what}>{what}</p>
                  ))}
                </div>
              </AlertDialog.Description>
              <div className="mt-5 flex flex-wrap gap-3">
                <AlertDialog.Action asChild>
                  <Button look="press" onClick={() => asked.answer(true)}>
                    {asked.yes}
                  </Button>
                </AlertDialog.Action>
                <AlertDialog.Cancel asChild>
                  <Button look="quiet">{asked.no ?? 'Not now'}</Button>
                </AlertDialog.Cancel>
              </div>
            </AlertDialog.Content>
          </AlertDialog.Portal>
        </AlertDialog.Root>
      )}
    </Context.Provider>
  );
}

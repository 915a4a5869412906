'use client';

import { createContext, type ReactNode, useCallback, useContext, useState } from 'react';
import { useFloating } from './floating/use-floating';
import type { Question } from './sure-questions';

type AskSure = (question: Question) => Promise<boolean>;

const Context = createContext<AskSure>(async () => false);

/** Asks before something is done that others will see, or that cannot be taken back; says what follows. */
export const useSure = () => useContext(Context);

/** Keeps the question that is being asked. */
export function SureProvider({ children }: { children: ReactNode }) {
  const [questions, setQuestions] = useState<(Question & { answer: (sure: boolean) => void })[]>([]);
  const [asked] = questions;
  const floating = useFloating(asked !== undefined);
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
      {floating && asked && <floating.SureDialog question={asked} onAnswer={asked.answer} />}
    </Context.Provider>
  );
}

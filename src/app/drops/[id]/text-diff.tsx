'use client';

import { diffWordsWithSpace } from 'diff';
import { useMemo } from 'react';

const TEXT = 'max-h-56 overflow-y-auto whitespace-pre-wrap rounded-lg bg-sunk px-3 py-2 [overflow-wrap:anywhere]';

interface TextDiffProps {
  was: string;
  is: string;
  wasName: string;
  isName: string;
}

/** Two texts side by side, with what the one has and the other has not. */
export function TextDiff({ was, is, wasName, isName }: TextDiffProps) {
  const parts = useMemo(() => diffWordsWithSpace(was, is), [was, is]);
  return (
    <div className="grid gap-2 sm:grid-cols-2">
      <Side name={wasName} empty={was === ''}>
        {parts
          .filter(({ added }) => !added)
          .map(({ value, removed }, index) =>
            removed ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: parts have no other name, and are only shown
              <del key={index} className="bg-snag-wash text-snag decoration-1">
                {value}
              </del>
            ) : (
              value
            ),
          )}
      </Side>
      <Side name={isName} empty={is === ''}>
        {parts
          .filter(({ removed }) => !removed)
          .map(({ value, added }, index) =>
            added ? (
              // biome-ignore lint/suspicious/noArrayIndexKey: parts have no other name, and are only shown
              <ins key={index} className="bg-live-wash text-live decoration-1">
                {value}
              </ins>
            ) : (
              value
            ),
          )}
      </Side>
    </div>
  );
}

function Side({ name, empty, children }: { name: string; empty: boolean; children: React.ReactNode }) {
  return (
    <div className="min-w-0">
      <p className="text-[13px] text-soft">{name}</p>
      {/* biome-ignore lint/a11y/noNoninteractiveTabindex: what scrolls has to be reached by keys (WCAG 2.1.1) */}
      <div tabIndex={0} className={TEXT}>
        {empty ? <span className="text-soft">nothing</span> : children}
      </div>
    </div>
  );
}

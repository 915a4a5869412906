'use client';

import type { ComponentProps } from 'react';
import { FIELD } from './field-row';
import type { Draft } from './use-draft';

type Own = 'value' | 'onChange' | 'onBlur';
type DraftProps<T extends 'input' | 'textarea'> = Omit<ComponentProps<T>, Own> & { draft: Draft };

/** A line of text that saves itself. */
export function DraftInput({ draft, className = FIELD, ...rest }: DraftProps<'input'>) {
  return (
    <input
      value={draft.text}
      onChange={(event) => draft.change(event.target.value)}
      onBlur={draft.flush}
      className={className}
      {...rest}
    />
  );
}

/** Several lines of text that save themselves. */
export function DraftArea({ draft, ...rest }: DraftProps<'textarea'>) {
  return (
    <textarea
      value={draft.text}
      onChange={(event) => draft.change(event.target.value)}
      onBlur={draft.flush}
      rows={4}
      className={`${FIELD} block resize-y`}
      {...rest}
    />
  );
}

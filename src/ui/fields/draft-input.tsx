'use client';

import type { ComponentProps } from 'react';
import type { Draft } from '../saving/use-draft';
import { useHydrated } from '../use-hydrated';
import { FIELD } from './field-row';

type Own = 'value' | 'onChange' | 'onBlur';
type DraftProps<T extends 'input' | 'textarea'> = Omit<ComponentProps<T>, Own> & { draft: Draft };

/** A line of text that saves itself. */
export function DraftInput({ draft, className = FIELD, ...rest }: DraftProps<'input'>) {
  const hydrated = useHydrated();
  return (
    <>
      <input
        value={draft.text}
        onChange={(event) => draft.change(event.target.value)}
        onBlur={() => void draft.flush()}
        className={className}
        {...rest}
        readOnly={!hydrated || rest.readOnly}
      />
      <DraftLeft draft={draft} />
    </>
  );
}

/** Several lines of text that save themselves. */
export function DraftArea({ draft, ...rest }: DraftProps<'textarea'>) {
  const hydrated = useHydrated();
  return (
    <>
      <textarea
        value={draft.text}
        onChange={(event) => draft.change(event.target.value)}
        onBlur={() => void draft.flush()}
        rows={4}
        className={`${FIELD} block resize-y`}
        {...rest}
        readOnly={!hydrated || rest.readOnly}
      />
      <DraftLeft draft={draft} />
    </>
  );
}

/** A text that was typed here before and never saved, offered. */
export function DraftLeft({ draft: { offer } }: { draft: Draft }) {
  if (!offer) return null;
  return (
    <div role="status" className="mt-1.5 rounded-lg bg-held-wash px-3 py-2 text-sm">
      <p>This was typed here and not saved:</p>
      <p className="my-1 max-h-32 overflow-y-auto whitespace-pre-wrap [overflow-wrap:anywhere]">{offer.text}</p>
      <span className="flex gap-4">
        <button type="button" className="textlink" onClick={offer.take}>
          Use it
        </button>
        <button type="button" className="textlink" onClick={offer.drop}>
          Throw it away
        </button>
      </span>
    </div>
  );
}

import type { ReactNode } from 'react';

/** The look of a field that is typed into. */
const LOOK = 'rounded-lg border border-line bg-paper px-3 py-2';
export const FIELD = `w-full ${LOOK}`;
/** The same for one that is as wide as what is in it. */
export const FIELD_LOOK = `max-w-full ${LOOK}`;

/** The same, small, for a line of several. */
export const SMALL_FIELD = 'min-w-0 rounded-lg border border-line bg-paper px-3 py-1.5 text-sm';

interface FieldRowProps {
  id: string;
  label: string;
  /** What is to be said below it. */
  below?: ReactNode;
  children: ReactNode;
}

/** A row of the Sheet: what it is called, the field, and what is to be said below it. */
export function FieldRow({ id, label, below, children }: FieldRowProps) {
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-1 sm:grid-cols-[112px_minmax(0,1fr)] sm:gap-3.5">
      <label htmlFor={id} className="pt-2 text-sm text-soft">
        {label}
      </label>
      <div>
        {children}
        {below && <div className="mt-1 flex flex-wrap gap-x-3.5 text-[13px] text-soft">{below}</div>}
      </div>
    </div>
  );
}

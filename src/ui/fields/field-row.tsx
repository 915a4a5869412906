import type { ReactNode } from 'react';

/** The look of a field that is typed into. */
const LOOK = 'rounded-lg border border-edge bg-card px-3 py-2';
export const FIELD = `w-full ${LOOK}`;
/** The same for one that is as wide as what is in it. */
export const FIELD_LOOK = `max-w-full ${LOOK}`;

/** The same, small, for a line of several. */
export const SMALL_FIELD = 'min-w-0 rounded-lg border border-edge bg-card px-3 py-1.5 text-sm';

interface FieldRowProps {
  id: string;
  label: string;
  /** Where its value comes from, and what can be done about that. */
  mark?: ReactNode;
  /** What is to be said below it: one quiet line. */
  below?: ReactNode;
  children: ReactNode;
}

/** A field with what it is called above it, where its value comes from, and what is to be said below. */
export function FieldRow({ id, label, mark, below, children }: FieldRowProps) {
  return (
    <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-1">
      <div className="flex min-h-6 flex-wrap items-center justify-between gap-x-3">
        <label htmlFor={id} className="text-sm text-soft">
          {label}
        </label>
        {mark}
      </div>
      <div className="min-w-0">
        {children}
        <Below>{below}</Below>
      </div>
    </div>
  );
}

/** The quiet line below a field. */
export function Below({ children }: { children: ReactNode }) {
  return <div className="mt-1 flex flex-wrap gap-x-3.5 text-[13px] text-soft empty:hidden">{children}</div>;
}

import type { ComponentProps } from 'react';

const LOOKS = {
  press: 'bg-copper text-card hover:brightness-110',
  quiet: 'text-copper shadow-[inset_0_0_0_1.5px_var(--copper)] hover:bg-copper-wash',
  plain: 'text-soft hover:text-ink hover:bg-sunk',
} as const;

/** What can be pressed. `press` is for the one thing that a place is about. */
export function Button({
  look = 'quiet',
  className = '',
  ...rest
}: ComponentProps<'button'> & { look?: keyof typeof LOOKS }) {
  return (
    <button
      type="button"
      className={`inline-flex items-center justify-center gap-2 rounded-full px-4 py-2 text-sm font-semibold leading-none ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}

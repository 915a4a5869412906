import type { ComponentProps } from 'react';

const LOOKS = {
  press: 'px-4 bg-copper text-card hover:brightness-110',
  quiet: 'px-4 text-copper shadow-[inset_0_0_0_1.5px_var(--copper)] hover:bg-copper-wash',
  plain: '-mx-2 px-2 text-soft hover:text-ink hover:bg-sunk',
} as const;

/** The look of what can be pressed, for what is no `Button` itself. */
export const buttonLook = (look: keyof typeof LOOKS) =>
  `inline-flex items-center justify-center gap-2 rounded-full py-2 text-sm font-semibold leading-none ${LOOKS[look]}`;

/** What can be pressed. `press` is for the one thing that a place is about. */
export function Button({
  look = 'quiet',
  className = '',
  ...rest
}: ComponentProps<'button'> & { look?: keyof typeof LOOKS }) {
  return <button type="button" className={`${buttonLook(look)} ${className}`} {...rest} />;
}

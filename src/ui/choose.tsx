'use client';

import { ChevronDown } from 'lucide-react';
import { useEarlyPress } from './floating/use-early-press';
import { useFloating } from './floating/use-floating';

interface ChooseProps<V extends string> {
  id?: string;
  /** What is chosen here, where no label stands beside it. */
  label?: string;
  value: V;
  options: readonly (readonly [value: V, name: string])[];
  onChange: (value: V) => void;
  className?: string;
}

/** The look of a list that stands among fields. */
export const CHOOSE_FIELD = 'rounded-lg px-3 py-2 bg-card';
/** The same, small, in a row of a table. */
export const CHOOSE_SMALL = 'rounded-md px-2 py-1 text-sm bg-card';
/** The same among filters. */
export const CHOOSE_CHIP = 'rounded-full px-3 py-1 text-sm bg-card';

const SIGN = <ChevronDown size={15} className="flex-none text-soft" aria-hidden />;

/** One of a list. */
export function Choose<V extends string>({
  id,
  label,
  value,
  options,
  onChange,
  className = CHOOSE_FIELD,
}: ChooseProps<V>) {
  const floating = useFloating();
  const { early, pressed, focused } = useEarlyPress();
  const button = {
    id,
    'aria-label': label,
    className: `inline-flex min-h-8 min-w-0 max-w-full items-center justify-between gap-2 border border-edge text-left ${className}`,
  };
  if (floating) {
    return (
      <floating.ChooseList
        button={{ ...button, autoFocus: focused }}
        sign={SIGN}
        value={value}
        options={options}
        onChange={(chosen) => onChange(chosen as V)}
        defaultOpen={pressed}
      />
    );
  }
  return (
    // biome-ignore lint/a11y/useAriaPropsForRole: what it controls is made as it opens
    <button {...button} {...early} role="combobox">
      <span className="min-w-0 truncate">{options.find(([each]) => each === value)?.[1]}</span>
      {SIGN}
    </button>
  );
}

'use client';

import { CHOOSE_SMALL, Choose } from '@/ui/choose';

const COLOURS = ['red', 'orange', 'yellow', 'green', 'cyan', 'blue', 'purple', 'pink', 'white', 'black'];

interface ChoiceProps {
  value: string;
  label: string;
  /** What stands for no colour. */
  first: string;
  onChoose: (colour: string) => void;
}

/** Chooses the colour of markers. */
export function MarkerColour({ value, label, first, onChoose }: ChoiceProps) {
  const colours = value === '' || COLOURS.includes(value) ? COLOURS : [value, ...COLOURS];
  return (
    <Choose
      label={label}
      value={value}
      options={[['', first], ...colours.map((colour) => [colour, colour] as const)]}
      onChange={onChoose}
      className={`${CHOOSE_SMALL} w-full max-w-44`}
    />
  );
}

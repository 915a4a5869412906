'use client';

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
    <select
      value={value}
      aria-label={label}
      onChange={(event) => onChoose(event.target.value)}
      className="w-full max-w-44 rounded-md border border-line bg-paper px-1.5 py-1 text-sm"
    >
      <option value="">{first}</option>
      {colours.map((colour) => (
        <option key={colour} value={colour}>
          {colour}
        </option>
      ))}
    </select>
  );
}

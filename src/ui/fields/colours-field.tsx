'use client';

import { TickBox } from '../tick-box';

/** The colours that markers commonly have, '' standing for none. */
export const MARKER_COLOURS = ['red', 'orange', 'yellow', 'green', 'cyan', 'blue', 'purple', 'pink', 'white', 'black'];

interface ColoursFieldProps {
  id: string;
  colours: readonly string[];
  onChange: (colours: string[]) => void;
}

/** Which colours of markers become chapters. */
export function ColoursField({ id, colours, onChange }: ColoursFieldProps) {
  const all = [...MARKER_COLOURS, ...colours.filter((colour) => colour && !MARKER_COLOURS.includes(colour))];
  return (
    <div id={id} className="flex flex-wrap gap-x-4 gap-y-1 pt-2">
      {all.map((colour) => (
        <TickBox
          key={colour}
          ticked={colours.includes(colour)}
          onTick={(ticked) => onChange(ticked ? [...colours, colour] : colours.filter((each) => each !== colour))}
        >
          {colour}
        </TickBox>
      ))}
    </div>
  );
}

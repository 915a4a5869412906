'use client';

import { type FormEvent, useState } from 'react';
import { type Fraction, lengthFromText } from '@/core/time';
import { Button } from '@/ui/button';
import { useNotices } from '@/ui/notices';
import { useTimeLine } from './time-line-state';

interface ShiftFormProps {
  /** What the button says. */
  says: string;
  /** What the field is called. */
  label: string;
  first?: string;
  onShift: (by: Fraction) => void;
}

/** Takes a length to move markers by: frames, seconds or timecode, with or without a sign. */
export function ShiftForm({ says, label, first = '', onShift }: ShiftFormProps) {
  const { rate } = useTimeLine();
  const { trouble } = useNotices();
  const [text, setText] = useState(first);
  const shift = (event: FormEvent) => {
    event.preventDefault();
    const by = lengthFromText(text, rate);
    if (by) onShift(by);
    else trouble(`“${text}” is no length. Type frames (-12), seconds (1.5 s) or timecode (00:00:01:12).`);
  };
  return (
    <form onSubmit={shift} className="flex items-center gap-2">
      <Button type="submit" className="py-1.5">
        {says}
      </Button>
      <input
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder="-12, 1.5 s, 00:00:01:12"
        aria-label={label}
        className="w-44 rounded-md border border-edge bg-card px-2 py-1 font-mono text-sm"
      />
    </form>
  );
}

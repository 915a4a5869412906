'use client';

import { format } from 'date-fns';
import { useState } from 'react';
import type { Rhythm } from '@/core/release/rhythm';
import { CHOOSE_FIELD, Choose } from '../choose';
import { FIELD_LOOK } from './field-row';

const OTHER = 'other';
const PLAIN_TIME = '18:00';

const RULES: readonly (readonly [rule: string, says: string])[] = [
  ['', 'none'],
  ['FREQ=DAILY', 'every day'],
  ['FREQ=WEEKLY;BYDAY=MO', 'every Monday'],
  ['FREQ=WEEKLY;BYDAY=TU', 'every Tuesday'],
  ['FREQ=WEEKLY;BYDAY=WE', 'every Wednesday'],
  ['FREQ=WEEKLY;BYDAY=TH', 'every Thursday'],
  ['FREQ=WEEKLY;BYDAY=FR', 'every Friday'],
  ['FREQ=WEEKLY;BYDAY=SA', 'every Saturday'],
  ['FREQ=WEEKLY;BYDAY=SU', 'every Sunday'],
  ['FREQ=MONTHLY;BYMONTHDAY=1', 'the first of the month'],
  [OTHER, 'by another rule'],
];

interface RhythmFieldProps {
  id: string;
  rhythm: Rhythm | null;
  /** None leaves it to the layers beneath. */
  onChange: (rhythm: Rhythm | null) => void;
}

/** On which days, and at what time, the videos of a series open: what new videos are offered. */
export function RhythmField({ id, rhythm, onChange }: RhythmFieldProps) {
  const known = RULES.some(([rule]) => rule === (rhythm?.rule ?? ''));
  const [other, setOther] = useState(!known);
  const zone = rhythm?.zone ?? Intl.DateTimeFormat().resolvedOptions().timeZone;
  const put = (set: Partial<Rhythm>) =>
    onChange({ rule: '', from: format(new Date(), 'yyyy-MM-dd'), time: PLAIN_TIME, zone, ...rhythm, ...set });
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Choose
        id={id}
        value={other ? OTHER : (rhythm?.rule ?? '')}
        options={RULES}
        onChange={(rule) => {
          setOther(rule === OTHER);
          if (rule === '') onChange(null);
          else if (rule !== OTHER) put({ rule });
        }}
        className={`${CHOOSE_FIELD} max-w-64`}
      />
      {other && (
        <input
          aria-label="Rule of the rhythm, as in iCalendar"
          defaultValue={rhythm?.rule ?? ''}
          placeholder="FREQ=WEEKLY;INTERVAL=2;BYDAY=FR"
          onBlur={(event) => event.target.value.trim() !== '' && put({ rule: event.target.value.trim() })}
          className={`${FIELD_LOOK} w-80 font-mono text-[13px]`}
        />
      )}
      {rhythm && (
        <>
          <input
            type="time"
            aria-label="Time of day of the rhythm"
            value={rhythm.time}
            onChange={(event) => event.target.value !== '' && put({ time: event.target.value })}
            className={FIELD_LOOK}
          />
          <span className="text-[13px] text-soft">in {rhythm.zone}</span>
        </>
      )}
    </div>
  );
}

'use client';

import { CalendarDays } from 'lucide-react';
import dynamic from 'next/dynamic';
import { useSyncExternalStore } from 'react';
import { Button } from '../button';
import { PopButton } from '../pop-button';

const DayChoice = dynamic(() => import('./day-choice').then((part) => part.DayChoice));

const never = () => () => {};

interface DateFieldProps {
  id: string;
  /** A calendar day as YYYY-MM-DD; '' is none. */
  day: string;
  onChange: (day: string) => void;
}

/** A calendar day, in the order that the person's own language has. */
export function DateField({ id, day, onChange }: DateFieldProps) {
  const language = useSyncExternalStore(
    never,
    () => navigator.language,
    () => 'en-GB',
  );
  // A calendar day has no zone: it is the same day everywhere.
  const words = new Intl.DateTimeFormat(language, { dateStyle: 'medium', timeZone: 'UTC' });
  return (
    <div className="flex flex-wrap items-center gap-2">
      <PopButton
        button={{
          id,
          className: 'inline-flex min-h-8 items-center gap-2 rounded-lg border border-edge bg-card px-3 py-2 text-left',
          children: (
            <>
              <CalendarDays size={16} className="text-soft" aria-hidden />
              {day === '' ? (
                <span className="text-soft">Choose a day</span>
              ) : (
                words.format(new Date(`${day}T00:00:00Z`))
              )}
            </>
          ),
        }}
        panel={{ label: 'Choose a day', align: 'start', className: 'p-3' }}
      >
        {(close) => (
          <DayChoice
            day={day}
            language={language}
            onChoose={(next) => {
              onChange(next);
              close();
            }}
          />
        )}
      </PopButton>
      {day !== '' && (
        <Button look="plain" onClick={() => onChange('')}>
          Remove
        </Button>
      )}
    </div>
  );
}

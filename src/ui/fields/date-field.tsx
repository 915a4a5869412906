'use client';

import { CalendarDays } from 'lucide-react';
import dynamic from 'next/dynamic';
import { Popover } from 'radix-ui';
import { useState, useSyncExternalStore } from 'react';
import { Button } from '../button';

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
  const [open, setOpen] = useState(false);
  const language = useSyncExternalStore(
    never,
    () => navigator.language,
    () => 'en-GB',
  );
  // A calendar day has no zone: it is the same day everywhere.
  const words = new Intl.DateTimeFormat(language, { dateStyle: 'medium', timeZone: 'UTC' });
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Popover.Root open={open} onOpenChange={setOpen}>
        <Popover.Trigger
          id={id}
          className="inline-flex min-h-8 items-center gap-2 rounded-lg border border-edge bg-card px-3 py-2 text-left"
        >
          <CalendarDays size={16} className="text-soft" aria-hidden />
          {day === '' ? <span className="text-soft">Choose a day</span> : words.format(new Date(`${day}T00:00:00Z`))}
        </Popover.Trigger>
        <Popover.Portal>
          <Popover.Content
            align="start"
            sideOffset={5}
            collisionPadding={8}
            aria-label="Choose a day"
            className="enamel z-50 p-3 shadow-lg"
          >
            <DayChoice
              day={day}
              language={language}
              onChoose={(next) => {
                onChange(next);
                setOpen(false);
              }}
            />
          </Popover.Content>
        </Popover.Portal>
      </Popover.Root>
      {day !== '' && (
        <Button look="plain" onClick={() => onChange('')}>
          Remove
        </Button>
      )}
    </div>
  );
}

'use client';

import 'react-day-picker/style.css';
import type { ChangeEvent } from 'react';
import { DayPicker, type DropdownProps } from 'react-day-picker';
import { CHOOSE_SMALL, Choose } from '../choose';

interface DayChoiceProps {
  /** As YYYY-MM-DD; '' is none. */
  day: string;
  language: string;
  /** So many years from this one on, and none before it; without it, those up to this one. */
  upTo?: number;
  onChoose: (day: string) => void;
}

const two = (number: number) => String(number).padStart(2, '0');

/** A month to choose a day from. */
export function DayChoice({ day, language, upTo, onChoose }: DayChoiceProps) {
  const [year, month, date] = day.split('-').map(Number);
  const chosen = year && month && date ? new Date(year, month - 1, date) : undefined;
  const said = (options: Intl.DateTimeFormatOptions) => (each: Date) => each.toLocaleDateString(language, options);
  return (
    <DayPicker
      mode="single"
      autoFocus
      captionLayout="dropdown"
      components={{ Dropdown: MonthOrYear }}
      selected={chosen}
      defaultMonth={chosen}
      {...(upTo !== undefined && monthsAhead(upTo, chosen))}
      weekStartsOn={firstWeekday(language)}
      formatters={{
        formatWeekdayName: said({ weekday: 'short' }),
        formatMonthDropdown: said({ month: 'long' }),
        formatCaption: said({ month: 'long', year: 'numeric' }),
      }}
      onSelect={(next) => {
        if (next) onChoose(`${next.getFullYear()}-${two(next.getMonth() + 1)}-${two(next.getDate())}`);
      }}
      style={
        {
          '--rdp-accent-color': 'var(--copper)',
          '--rdp-accent-background-color': 'var(--copper-wash)',
          '--rdp-day-height': '36px',
          '--rdp-day-width': '36px',
          '--rdp-day_button-height': '34px',
          '--rdp-day_button-width': '34px',
        } as React.CSSProperties
      }
    />
  );
}

/** The months of this year, or of an earlier day that is chosen, up to the last of some years on. */
function monthsAhead(years: number, chosen: Date | undefined): { startMonth: Date; endMonth: Date } {
  const year = new Date().getFullYear();
  return {
    startMonth: new Date(Math.min(year, chosen?.getFullYear() ?? year), 0),
    endMonth: new Date(year + years, 11),
  };
}

/** The month or the year that is shown, as all lists of ours look. */
function MonthOrYear({ options = [], value, onChange, 'aria-label': label }: DropdownProps) {
  return (
    <Choose
      label={label}
      value={String(value)}
      options={options.map((each): [string, string] => [String(each.value), each.label])}
      // The package reads nothing of the event but this.
      onChange={(chosen) => onChange?.({ target: { value: chosen } } as ChangeEvent<HTMLSelectElement>)}
      className={CHOOSE_SMALL}
    />
  );
}

/** The day that weeks begin with for a language (Unicode CLDR by the engine); Monday where it does not know. */
function firstWeekday(language: string): 0 | 1 | 2 | 3 | 4 | 5 | 6 {
  type WithWeek = Intl.Locale & { getWeekInfo?: () => { firstDay: number }; weekInfo?: { firstDay: number } };
  const locale = new Intl.Locale(language) as WithWeek;
  const first = (locale.getWeekInfo?.() ?? locale.weekInfo)?.firstDay ?? 1;
  return (first % 7) as 0 | 1 | 2 | 3 | 4 | 5 | 6;
}

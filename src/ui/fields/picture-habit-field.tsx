'use client';

import type { PictureHabit } from '@/core/defaults';
import { type Fraction, fraction, fromDecimal, plus, toDecimal } from '@/core/time';
import { Choose } from '@/ui/choose';
import { useDraft } from '../saving/use-draft';
import { ChoiceCards } from './choice-cards';
import { DraftInput } from './draft-input';
import { FIELD_LOOK } from './field-row';

const HABITS: { value: PictureHabit['way']; name: string; says: string }[] = [
  { value: 'none', name: 'None', says: 'the site takes one of its own' },
  { value: 'moment', name: 'A fixed moment', says: 'for videos that open alike' },
  { value: 'layout', name: 'The title over a moment', says: 'big words on a band' },
];

const FIRST: Fraction = fraction(3);

const BANDS = [
  ['below', 'below, across the picture'],
  ['beside', 'beside, at the left'],
] as const;

/** Seconds in a text such as 6.4 or 1:06.4, exactly. */
function secondsIn(text: string): Fraction | undefined {
  const [, minutes = '0', seconds = ''] = /^(?:(\d{1,4}):)?(\d{1,6}(?:\.\d{1,3})?)$/.exec(text.trim()) ?? [];
  const rest = fromDecimal(seconds);
  return rest && plus(rest, fraction(Number(minutes) * 60));
}

interface PictureHabitProps {
  id: string;
  habit: PictureHabit;
  onChange: (habit: PictureHabit) => void;
}

/** What stands for videos that nobody makes a picture for. */
export function PictureHabitField({ id, habit, onChange }: PictureHabitProps) {
  const at = habit.way === 'none' ? FIRST : habit.at;
  const draft = useDraft(toDecimal(at, 1), async (text) => {
    const seconds = secondsIn(text);
    if (!seconds) return 'refused';
    if (habit.way !== 'none') onChange({ ...habit, at: seconds });
    return 'saved';
  });
  const choose = (way: PictureHabit['way']) =>
    onChange(way === 'none' ? { way } : way === 'moment' ? { way, at } : { way, at, band: 'below' });
  return (
    <div className="grid gap-2">
      <ChoiceCards name={id} chosen={habit.way} options={HABITS} onChoose={choose} />
      {habit.way !== 'none' && (
        <div className="flex flex-wrap items-center gap-2 text-sm text-soft">
          at
          <DraftInput draft={draft} className={`${FIELD_LOOK} w-28 font-mono`} aria-label="Moment in the video" />
          seconds, or minutes:seconds
          {!secondsIn(draft.text) && <span className="text-snag">▲ A moment looks like 6.4 or 1:06.4</span>}
        </div>
      )}
      {habit.way === 'layout' && (
        <div className="flex flex-wrap items-center gap-2 text-sm text-soft">
          the band stands
          <Choose
            label="Where the band stands"
            value={habit.band}
            options={BANDS}
            onChange={(band) => onChange({ ...habit, band })}
          />
        </div>
      )}
    </div>
  );
}

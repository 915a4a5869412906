import { CHOOSE_FIELD, Choose } from '../choose';
import { APART_CHOICES, type HoursChoices, LATE_CHOICES } from './choices';

interface HoursFieldProps {
  id?: string;
  /** For those who cannot see where it stands. */
  label?: string;
  hours: number;
  onChange: (hours: number) => void;
}

function HoursField({ id, label, hours, choices, onChange }: HoursFieldProps & { choices: HoursChoices }) {
  const offered = choices.some(([value]) => Number(value) === hours);
  return (
    <Choose
      id={id}
      label={label}
      value={String(hours)}
      options={offered ? choices : [...choices, [String(hours), `up to ${hours} hours`] as const]}
      onChange={(next) => onChange(Number(next))}
      className={`${CHOOSE_FIELD} max-w-80`}
    />
  );
}

/** What is to become of a video that could not open at its time. */
export const LateField = (props: HoursFieldProps) => <HoursField {...props} choices={LATE_CHOICES} />;

/** How long a channel is to be left in peace between two releases. */
export const ApartField = (props: HoursFieldProps) => <HoursField {...props} choices={APART_CHOICES} />;

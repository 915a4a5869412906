import { CHOOSE_FIELD, Choose } from '../choose';
import { LATE_CHOICES } from './choices';

interface LateFieldProps {
  id?: string;
  /** For those who cannot see where it stands. */
  label?: string;
  hours: number;
  onChange: (hours: number) => void;
}

/** What is to become of a video that could not open at its time. */
export function LateField({ id, label, hours, onChange }: LateFieldProps) {
  const offered = LATE_CHOICES.some(([value]) => Number(value) === hours);
  const other = [String(hours), `open it up to ${hours} hours late`] as const;
  return (
    <Choose
      id={id}
      label={label}
      value={String(hours)}
      options={offered ? LATE_CHOICES : [...LATE_CHOICES, other]}
      onChange={(next) => onChange(Number(next))}
      className={`${CHOOSE_FIELD} max-w-80`}
    />
  );
}

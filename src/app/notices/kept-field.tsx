'use client';

import { useEffect, useState } from 'react';
import { SMALL_FIELD } from '@/ui/fields/field-row';

interface KeptFieldProps {
  label: string;
  value: string;
  /** Is given what was typed once the field is left, or Enter is pressed. */
  onKeep: (value: string) => void;
  type?: 'text' | 'password' | 'email' | 'url' | 'number';
  placeholder?: string;
  className?: string;
}

/** A field that is kept when it is left. */
export function KeptField({ label, value, onKeep, type = 'text', placeholder, className = '' }: KeptFieldProps) {
  const [typed, setTyped] = useState(value);
  useEffect(() => setTyped(value), [value]);
  const keep = () => {
    if (typed !== value) onKeep(typed);
  };
  return (
    <label className={`grid gap-0.5 ${className}`}>
      <span className="text-[13px] text-soft">{label}</span>
      <input
        type={type}
        value={typed}
        placeholder={placeholder}
        autoComplete="off"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={keep}
        onKeyDown={(event) => event.key === 'Enter' && keep()}
        className={`${SMALL_FIELD} w-full`}
      />
    </label>
  );
}

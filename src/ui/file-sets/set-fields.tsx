'use client';

import type { ReactNode } from 'react';
import type { RateControl } from '@/core/renditions';
import { CHOOSE_FIELD, Choose } from '../choose';
import { FIELD } from '../fields/field-row';

/** A field with what it is called above it. */
export function Part({ label, children }: { label: string; children: ReactNode }) {
  return (
    <div className="grid content-start gap-1">
      <span aria-hidden>{label}</span>
      {children}
    </div>
  );
}

/** One of a list, as wide as its field. */
export function List<V extends string>(props: {
  label: string;
  value: V;
  options: readonly (readonly [V, string])[];
  onChange: (value: V) => void;
}) {
  return <Choose {...props} className={`${CHOOSE_FIELD} w-full`} />;
}

/** The numbers that go with a way of sharing out bits. */
export function Bits({ control, onChange }: { control: RateControl; onChange: (control: RateControl) => void }) {
  if (control.way === 'by size') return null;
  if (control.way === 'quality') {
    return (
      <Count
        label="Quality (lower is better)"
        value={control.quality}
        least={10}
        most={40}
        onChange={(quality) => onChange({ ...control, quality })}
      />
    );
  }
  return (
    <div className="grid grid-cols-2 gap-2">
      <Count
        label="Target, kbit/s"
        value={control.kilobits}
        least={100}
        most={400_000}
        onChange={(kilobits) => onChange({ ...control, kilobits })}
      />
      <Count
        label="Ceiling, kbit/s"
        value={control.ceiling}
        least={100}
        most={400_000}
        onChange={(ceiling) => onChange({ ...control, ceiling })}
      />
    </div>
  );
}

function Count({
  label,
  value,
  least,
  most,
  onChange,
}: {
  label: string;
  value: number;
  least: number;
  most: number;
  onChange: (value: number) => void;
}) {
  return (
    <label className="grid gap-1">
      {label}
      <input
        type="number"
        required
        min={least}
        max={most}
        step={1}
        value={Number.isNaN(value) ? '' : value}
        onChange={(event) => onChange(event.target.valueAsNumber)}
        className={`${FIELD} tabular-nums`}
      />
    </label>
  );
}

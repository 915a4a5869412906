'use client';

import { type FormEvent, useState } from 'react';
import type { Credit } from '@/core/declarations';
import { Button } from '@/ui/button';
import { SMALL_FIELD } from './field-row';
import { TakeOff } from './take-off';

interface CreditsFieldProps {
  id: string;
  credits: Credit[];
  onChange: (credits: Credit[]) => void;
}

/** Who is named for what. */
export function CreditsField({ id, credits, onChange }: CreditsFieldProps) {
  const [role, setRole] = useState('');
  const [name, setName] = useState('');
  const add = (event: FormEvent) => {
    event.preventDefault();
    if (role.trim() === '' || name.trim() === '') return;
    onChange([...credits, { role: role.trim(), name: name.trim() }]);
    setRole('');
    setName('');
  };
  return (
    <div className="grid gap-1.5">
      {credits.map((credit) => (
        <div key={`${credit.role} ${credit.name}`} className="flex items-center gap-2 text-sm">
          <span className="w-40 text-soft">{credit.role}</span>
          <span className="flex-1">{credit.name}</span>
          <TakeOff
            label={`Remove ${credit.role} ${credit.name}`}
            onClick={() => onChange(credits.filter((each) => each !== credit))}
          />
        </div>
      ))}
      <form onSubmit={add} className="flex flex-wrap gap-2">
        <input
          id={id}
          value={role}
          onChange={(event) => setRole(event.target.value)}
          placeholder="Camera"
          aria-label="What for"
          className={`${SMALL_FIELD} w-36`}
        />
        <input
          value={name}
          onChange={(event) => setName(event.target.value)}
          placeholder="Name"
          aria-label="Who"
          className={`${SMALL_FIELD} w-48`}
        />
        <Button type="submit" className="py-1.5">
          Add
        </Button>
      </form>
    </div>
  );
}

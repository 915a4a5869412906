'use client';

import { useQuery } from '@tanstack/react-query';
import { type FormEvent, useState } from 'react';
import { clockText, EVERYTHING, type LineLimit, minutesIn } from '@/core/line';
import type { ChannelsView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { CHOOSE_FIELD, Choose } from '@/ui/choose';
import { SMALL_FIELD } from '@/ui/fields/field-row';
import { useActs } from '@/ui/saving/use-acts';

const QUERY_KEY = ['line'];
const ALL = 'All uploads together';

/** How much of the line uploads may take: all together, and each channel. */
export function LineLimits({ sites }: { sites: ChannelsView['sites'] }) {
  const { data: limits = [] } = useQuery({ queryKey: QUERY_KEY, queryFn: () => ask<LineLimit[]>('/api/line') });
  const { act } = useActs(QUERY_KEY);
  const channels = sites.flatMap((site) =>
    site.accounts.flatMap((account) =>
      account.channels.map(({ id, name }) => ({ id, name: `${name} on ${site.name}` })),
    ),
  );
  const [owner, setOwner] = useState<string>(EVERYTHING);
  const nameOf = (id: string) =>
    id === EVERYTHING ? ALL : (channels.find((channel) => channel.id === id)?.name ?? '');
  const set = (id: string, limit: Omit<LineLimit, 'owner'> | null) =>
    act('/api/line', { method: 'PUT', json: { owner: id, limit } });
  return (
    <section aria-label="Upload speed" className="enamel mb-4 grid gap-3 px-4 py-3.5">
      <div>
        <h2>Upload speed</h2>
        <p className="text-[13px] text-soft">
          {limits.length === 0
            ? 'Uploads take all of the line. A limit leaves room for others, and holds at once.'
            : 'Several uploads share a limit equally. A change holds at once.'}
        </p>
      </div>
      {limits.length > 0 && (
        <ul className="grid gap-1.5 text-sm">
          {limits.map((limit) => (
            <li key={limit.owner} className="flex flex-wrap items-baseline gap-x-3">
              <b className="font-semibold">{nameOf(limit.owner)}</b>
              <span className="tabular-nums">
                at most {limit.kilobits / 1000} Mbit/s{hoursWords(limit)}
              </span>
              <button
                type="button"
                className="textlink"
                aria-label={`Take the limit away: ${nameOf(limit.owner)}`}
                onClick={() => void set(limit.owner, null)}
              >
                Take the limit away
              </button>
            </li>
          ))}
        </ul>
      )}
      <div className="flex flex-wrap items-end gap-2 text-sm">
        <Choose
          label="Limit for"
          value={owner}
          options={[[EVERYTHING, ALL], ...channels.map(({ id, name }) => [id, name] as const)]}
          onChange={setOwner}
          className={CHOOSE_FIELD}
        />
        <LimitForm key={owner} onSet={(limit) => set(owner, limit)} />
      </div>
    </section>
  );
}

function hoursWords({ hours }: LineLimit): string {
  return hours ? `, from ${clockText(hours.from)} to ${clockText(hours.to)} (${hours.zone.replaceAll('_', ' ')})` : '';
}

function LimitForm({ onSet }: { onSet: (limit: Omit<LineLimit, 'owner'>) => unknown }) {
  const [megabits, setMegabits] = useState('');
  const [[from, to], setHours] = useState<[string, string]>(['', '']);
  const [trouble, setTrouble] = useState('');
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const kilobits = Math.round(Number(megabits.replace(',', '.')) * 1000);
    const [first, last] = [minutesIn(from), minutesIn(to)];
    const timed = from.trim() !== '' || to.trim() !== '';
    if (!(kilobits >= 64)) return setTrouble('Say how many Mbit/s uploads may take, such as 8.');
    if (timed && (first === undefined || last === undefined))
      return setTrouble('Say both hours, such as 9:00 and 17:30.');
    setTrouble('');
    const { timeZone } = Intl.DateTimeFormat().resolvedOptions();
    const hours = first !== undefined && last !== undefined ? { from: first, to: last, zone: timeZone } : undefined;
    void onSet({ kilobits, hours });
  };
  return (
    <form onSubmit={submit} className="flex flex-wrap items-center gap-2">
      <Small label="Mbit/s" value={megabits} onChange={setMegabits} />
      <span className="text-soft">only from</span>
      <Small label="from" value={from} onChange={(next) => setHours([next, to])} placeholder="9:00" hidden />
      <span className="text-soft">to</span>
      <Small label="to" value={to} onChange={(next) => setHours([from, next])} placeholder="17:30" hidden />
      <Button type="submit" look="quiet">
        Set this limit
      </Button>
      {trouble && (
        <p role="alert" className="w-full text-snag">
          ▲ {trouble}
        </p>
      )}
    </form>
  );
}

function Small({
  label,
  value,
  onChange,
  placeholder,
  hidden = false,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  placeholder?: string;
  hidden?: boolean;
}) {
  return (
    <label className="flex items-center gap-1.5">
      <input
        value={value}
        aria-label={hidden ? label : undefined}
        placeholder={placeholder}
        onChange={(event) => onChange(event.target.value)}
        className={`${SMALL_FIELD} w-20 tabular-nums`}
      />
      {!hidden && label}
    </label>
  );
}

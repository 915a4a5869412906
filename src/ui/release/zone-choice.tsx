'use client';

import { useMemo } from 'react';
import type { SiteRules } from '@/core/delivery';
import { CHOOSE_FIELD, Choose } from '../choose';
import { useZone } from '../moment';

interface ZoneChoiceProps {
  zone: string;
  /** The sites that it is for: the zones that they print dates in come first. */
  sites: readonly SiteRules[];
  onChoose: (zone: string) => void;
}

/** The zone by whose clocks a time is said. */
export function ZoneChoice({ zone, sites, onChoose }: ZoneChoiceProps) {
  const here = useZone();
  const zones = useMemo(() => {
    const known = Intl.supportedValuesOf('timeZone');
    const printed = sites.flatMap(({ printsDateIn }) => (known.includes(printsDateIn ?? '') ? [printsDateIn] : []));
    return [...new Set([here, zone, ...printed, 'UTC', ...known])] as string[];
  }, [here, zone, sites]);
  return (
    <Choose
      label="Time zone"
      value={zone}
      options={zones.map((each) => [each, each.replaceAll('_', ' ')] as const)}
      onChange={onChoose}
      className={`${CHOOSE_FIELD} max-w-52`}
    />
  );
}

'use client';

import { useQuery } from '@tanstack/react-query';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { CopyLink } from '@/ui/copy-link';
import { SMALL_FIELD } from '@/ui/fields/field-row';
import { useActs } from '@/ui/saving/use-acts';

const AT = '/api/calendar/address';
const CONCERNS = ['calendar address'] as const;

/** The secret address by which a calendar program on this machine shows what opens. */
export function Subscribe() {
  const { data } = useQuery({ queryKey: CONCERNS, queryFn: () => ask<{ address?: string }>(AT) });
  const { act } = useActs(CONCERNS);
  const renew = () => void act(AT, { method: 'POST' });
  if (!data) return null;
  const { address } = data;
  return (
    <div className="grid max-w-96 gap-2.5">
      <p className="text-sm">
        A calendar program on this machine can show what opens and what opened: give it this address. Whoever has the
        address can read that, and nothing else.
      </p>
      {address ? (
        <>
          <input
            readOnly
            aria-label="Calendar address"
            value={address}
            className={`${SMALL_FIELD} w-full font-mono text-[13px]`}
          />
          <div className="flex flex-wrap items-center gap-x-5 gap-y-1">
            <CopyLink link={address} />
            <Button look="plain" onClick={renew}>
              Make another address
            </Button>
            <Button look="plain" onClick={() => void act(AT, { method: 'DELETE' })}>
              Take it away
            </Button>
          </div>
          <p className="text-[13px] text-soft">With another address, this one leads nowhere any more.</p>
        </>
      ) : (
        <Button onClick={renew}>Make the address</Button>
      )}
    </div>
  );
}

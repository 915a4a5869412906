'use client';

import { useEffect, useRef, useState } from 'react';
import { ask } from '../ask';
import { Button } from '../button';
import { useArrivals } from './arrivals';
import { forgetFile, type KeptFile, keptFiles } from './kept-files';

/** The kept files that are still missed; what has come meanwhile, or was deleted, is forgotten. */
async function stillMissed(): Promise<KeptFile[]> {
  const missed: KeptFile[] = [];
  for (const file of await keptFiles()) {
    const state = await ask<{ state: string }>(`/api/cuts/${file.cutId}`).then(
      (cut) => cut.state,
      () => 'gone',
    );
    if (state === 'arriving') missed.push(file);
    else await forgetFile(file.cutId);
  }
  return missed;
}

/**
 * Goes on with files whose page went while they were on their way: by itself where the browser lets it open them again, with
 * one press where it wants to be asked.
 */
export function AsleepFiles() {
  const { goOnWith } = useArrivals();
  const [waiting, setWaiting] = useState<KeptFile[]>([]);
  const begun = useRef(false);
  useEffect(() => {
    if (begun.current) return;
    begun.current = true;
    void stillMissed().then(async (missed) => {
      setWaiting(missed.filter(({ isOpen }) => !isOpen));
      for (const file of missed.filter(({ isOpen }) => isOpen)) await goOnWith(file);
    });
  }, [goOnWith]);
  if (waiting.length === 0) return null;
  const goOn = async () => {
    setWaiting([]);
    for (const file of waiting) await goOnWith(file);
  };
  const [first] = waiting;
  const what = waiting.length === 1 ? `“${first?.name}” has` : `${waiting.length} files have`;
  return (
    <div role="status" className="flex flex-wrap items-center gap-x-4 gap-y-1 bg-held-wash px-7 py-1.5 text-sm">
      <p className="min-w-0 flex-1">
        <b className="text-held">{what} not arrived whole.</b> The browser asks once whether it may be opened again; the
        rest then goes on from where it stands.
      </p>
      <Button look="plain" onClick={goOn}>
        Go on with {waiting.length === 1 ? 'it' : 'them'}
      </Button>
    </div>
  );
}

'use client';

import { useRef } from 'react';
import { useArrivals } from './arrivals/arrivals';
import { Button } from './button';

/** Picks finished files and brings them in. */
export function BringButton() {
  const input = useRef<HTMLInputElement>(null);
  const { bring } = useArrivals();
  return (
    <>
      <input
        ref={input}
        type="file"
        multiple
        accept="video/*,.mkv,.mov,.mp4,.webm"
        className="sr-only"
        tabIndex={-1}
        aria-label="Finished video files"
        onChange={(event) => {
          const files = [...(event.target.files ?? [])];
          event.target.value = '';
          void bring(files);
        }}
      />
      <Button look="press" onClick={() => input.current?.click()}>
        Bring a cut
      </Button>
    </>
  );
}

'use client';

import { useRef, useState } from 'react';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { FilePick } from '@/ui/file-pick';
import { useNotices } from '@/ui/notices';

interface SoundPickProps {
  videoId: string;
  sound: { id: string; name: string } | undefined;
  onSound: (sound: { id: string; name: string }) => void;
}

/** A sound that is to be heard in the place of another; it is brought over as soon as it is picked. */
export function SoundPick({ videoId, sound, onSound }: SoundPickProps) {
  const input = useRef<HTMLInputElement>(null);
  const [coming, setComing] = useState(false);
  const { trouble } = useNotices();
  const take = async ([file]: File[]) => {
    if (!file) return;
    setComing(true);
    try {
      const at = `/api/videos/${videoId}/sounds?${new URLSearchParams({ name: file.name })}`;
      const { id } = await ask<{ id: string }>(at, { method: 'POST', body: file });
      onSound({ id, name: file.name });
    } catch (error) {
      trouble(error);
    } finally {
      setComing(false);
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Button onClick={() => input.current?.click()}>{sound ? 'Take another sound' : 'Add the sound'}</Button>
      <span className="text-[13px] text-soft" aria-live="polite">
        {coming
          ? 'being brought over …'
          : sound
            ? sound.name
            : 'WAV, FLAC, MP3 or AAC. Where it is too short, the rest is silent.'}
      </span>
      <FilePick input={input} label="Sound file" accept="audio/*" onPick={take} />
    </div>
  );
}

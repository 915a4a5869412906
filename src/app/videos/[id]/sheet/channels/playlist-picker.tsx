'use client';

import { ChevronDown, RefreshCw } from 'lucide-react';
import { type FormEvent, useState } from 'react';
import { sourceWords } from '@/core/defaults';
import type { SheetChannel } from '@/desk/views/views';
import { Button } from '@/ui/button';
import { PopButton } from '@/ui/pop-button';
import { TickBox } from '@/ui/tick-box';
import type { SheetHandle } from '../use-sheet';

interface PickerProps {
  channel: SheetChannel;
  handle: SheetHandle;
}

/** Chooses the playlists of a channel that the video is put in; a new one is made at the site. */
export function PlaylistPicker({ channel, handle }: PickerProps) {
  const [title, setTitle] = useState('');
  const { playlists, chosenPlaylists, groups, playlistsFrom, unknownPlaylists } = channel;
  const byHand = playlistsFrom.some(({ layer }) => layer === 'drop');
  const chosen = playlists.filter((playlist) => chosenPlaylists.includes(playlist.id));
  const at = `/api/channels/${channel.id}/playlists`;
  const set = (ids: string[] | null) => handle.setPlaylists(channel.id, ids);
  const choose = (id: string, wanted: boolean) => {
    const rest = chosenPlaylists.filter((each) => each !== id);
    void set(wanted ? [...rest, id] : rest);
  };
  const make = async (event: FormEvent) => {
    event.preventDefault();
    if (await handle.act(at, { method: 'POST', json: { title } })) setTitle('');
  };
  return (
    <PopButton
      button={{
        className: 'mt-1.5 inline-flex items-center gap-1 text-left text-[13px] text-copper hover:underline',
        children: (
          <>
            {chosen.length === 0
              ? `No ${groups?.one} chosen`
              : `In ${chosen.map((playlist) => `“${playlist.title}”`).join(', ')}`}
            <ChevronDown size={14} aria-hidden />
          </>
        ),
      }}
      panel={{
        label: `${channel.name}: ${groups?.many}`,
        align: 'start',
        className: 'grid w-[min(290px,92vw)] gap-2 p-3.5',
      }}
    >
      <div className="flex items-center justify-between">
        <h3>
          {channel.name}: {groups?.many}
        </h3>
        <button
          type="button"
          aria-label={`Read the ${groups?.many} from ${channel.siteName} again`}
          onClick={() => handle.act(at, { method: 'PUT' })}
          className="rounded p-1 text-soft hover:text-ink"
        >
          <RefreshCw size={15} />
        </button>
      </div>
      {playlists.length === 0 && <p className="text-[13px] text-soft">There are none yet.</p>}
      {playlists.map((playlist) => (
        <TickBox
          key={playlist.id}
          ticked={chosenPlaylists.includes(playlist.id)}
          onTick={(ticked) => choose(playlist.id, ticked)}
          className="text-sm"
        >
          {playlist.title}
        </TickBox>
      ))}
      <p className="flex flex-wrap gap-x-2.5 text-[13px] text-soft">
        {byHand ? (
          <button type="button" onClick={() => void set(null)} className="textlink">
            Use the defaults again
          </button>
        ) : (
          playlistsFrom.length > 0 && <span>from {sourceWords(playlistsFrom)}</span>
        )}
      </p>
      {unknownPlaylists.map((name) => (
        <button
          key={name}
          type="button"
          onClick={() => void handle.act(at, { method: 'POST', json: { title: name } })}
          className="textlink text-left text-[13px]"
        >
          ▲ The defaults name “{name}”, which the channel does not have. Make it there
        </button>
      ))}
      <form onSubmit={make} className="flex gap-2 border-line border-t pt-2.5">
        <input
          value={title}
          onChange={(event) => setTitle(event.target.value)}
          aria-label={`Name of a new ${groups?.one}`}
          placeholder={`New ${groups?.one}`}
          className="min-w-0 flex-1 rounded-lg border border-edge bg-card px-2.5 py-1.5 text-sm"
        />
        <Button type="submit" className="px-3">
          Create
        </Button>
      </form>
    </PopButton>
  );
}

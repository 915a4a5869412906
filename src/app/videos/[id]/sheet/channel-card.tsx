'use client';

import { mayMove, type SheetPlace } from '@/core/drop';
import { FIT_PLACES } from '@/core/fitting';
import type { DropAction } from '@/desk/send';
import type { SheetChannel } from '@/desk/views';
import { Button } from '@/ui/button';
import { CopyLink } from '@/ui/copy-link';
import { dropWords } from '@/ui/drop-words';
import { Meter } from '@/ui/meter';
import { lookOf, Stops } from '@/ui/stops';
import { TickBox } from '@/ui/tick-box';
import { ChannelWords } from './channel-words';
import { PlaylistPicker } from './playlist-picker';
import type { SheetHandle } from './use-sheet';

const ACTIONS: Record<DropAction, string> = {
  open: 'Open to everyone',
  'try again': 'Try again',
  accept: 'Accept it',
  revise: 'Send the changes',
  'take over': 'Send it with today’s defaults',
  remove: 'Remove from the site',
};

/** One channel on the Sheet: its tick, whether the video is ready for it, and where its drop stands. */
export function ChannelCard({ channel, handle }: { channel: SheetChannel; handle: SheetHandle }) {
  const { drop } = channel;
  const sent = drop !== undefined && drop.state !== 'draft';
  const name = (
    <>
      <b className="font-semibold">{channel.name}</b>
      <span className="block text-[13px] text-soft">{channel.siteName}</span>
    </>
  );
  return (
    <section
      aria-label={`${channel.name} on ${channel.siteName}`}
      className="border-line border-t py-2.5 text-sm first-of-type:border-t-0"
    >
      <div className="flex items-start gap-2">
        {sent ? (
          <span className="flex-1">{name}</span>
        ) : (
          <TickBox ticked={channel.ticked} onTick={(ticked) => handle.tick(channel.id, ticked)} className="flex-1">
            {name}
          </TickBox>
        )}
        <Readiness channel={channel} sent={sent} />
      </div>
      {channel.ticked && (!sent || drop.state === 'removed') && <MissingList channel={channel} />}
      {drop && sent && <DropLine channel={channel} drop={drop} handle={handle} />}
      {channel.ticked && <ChannelWords channel={channel} handle={handle} />}
      {drop && channel.groups && <PlaylistPicker channel={channel} handle={handle} />}
    </section>
  );
}

function Readiness({ channel, sent }: { channel: SheetChannel; sent: boolean }) {
  if (!channel.connected) return <span className="font-semibold text-snag">▲ not connected</span>;
  if (sent && channel.drop?.state !== 'removed') return null;
  if (!channel.ticked) return <span className="text-soft">not this one</span>;
  const { length } = channel.missing;
  if (length === 0) return <span className="font-semibold text-live">● ready</span>;
  return <span className="whitespace-nowrap font-semibold text-snag">▲ {length} to settle</span>;
}

const FIELDS: readonly SheetPlace[] = FIT_PLACES;

/** Takes the eye, and the keyboard, to a place on the Sheet. */
function goTo(place: SheetPlace) {
  const target = document.getElementById(place);
  target?.scrollIntoView({ block: 'center', behavior: 'smooth' });
  if (FIELDS.includes(place) || place.startsWith('declared-')) target?.focus({ preventScroll: true });
}

function MissingList({ channel }: { channel: SheetChannel }) {
  return (
    <ul className="mt-1.5 grid gap-1">
      {channel.missing.map(({ place, what }) => (
        <li key={what}>
          <button type="button" onClick={() => goTo(place)} className="textlink text-[13px]">
            {what}
          </button>
        </li>
      ))}
    </ul>
  );
}

type SentDrop = NonNullable<SheetChannel['drop']>;

function DropLine({ channel, drop, handle }: { channel: SheetChannel; drop: SentDrop; handle: SheetHandle }) {
  const look = lookOf(drop);
  const share = drop.progress?.fraction;
  const act = (action: DropAction) => handle.act(`/api/drops/${drop.id}`, { method: 'POST', json: { action } });
  const actions = drop.actions.filter((action) => {
    if (action === 'revise') return channel.changedSince;
    return action !== 'take over' || channel.layersChanged;
  });
  const main: DropAction | undefined = actions.find((action) => action !== 'remove');
  return (
    <div
      className={`mt-2 grid gap-2 [overflow-wrap:anywhere] ${look === 'snag' ? '-mx-2 rounded-lg bg-snag-wash p-2' : ''}`}
    >
      <Stops behind={drop.stops} look={look} fraction={share} />
      {look === 'moving' && share !== undefined ? (
        <Meter share={share} says={dropWords(drop)} />
      ) : (
        <p>{dropWords(drop)}</p>
      )}
      {drop.snag && <p className="text-[13px]">{drop.snag.remedy}.</p>}
      {channel.changedSince && <p className="text-[13px]">The record has changed since it was sent.</p>}
      {channel.layersChanged && (
        <p className="text-[13px]">Defaults or links have changed since; what was sent stays as it was.</p>
      )}
      {drop.link && (
        <p className="flex gap-4">
          <CopyLink link={drop.link} />
          <a href={drop.link} target="_blank" rel="noreferrer" className="text-[13px] text-copper hover:underline">
            Watch page
          </a>
        </p>
      )}
      <div className="flex flex-wrap gap-2">
        {actions.map((action) => (
          <Button
            key={action}
            look={action === main && action === 'open' ? 'press' : action === 'remove' ? 'plain' : 'quiet'}
            onClick={() => {
              const sure =
                action !== 'remove' ||
                window.confirm(`Remove this video from ${channel.siteName}? The link will stop working.`);
              if (sure) void act(action);
            }}
          >
            {ACTIONS[action]}
          </Button>
        ))}
        {drop.state === 'removed' && mayMove('send', drop.state) && (
          <span className="text-[13px] text-soft">It can be sent anew.</span>
        )}
      </div>
    </div>
  );
}

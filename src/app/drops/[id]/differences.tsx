'use client';

import { type PartName, undecided } from '@/core/parts';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { useSure } from '@/ui/sure';
import { Part } from './part';
import { TextDiff } from './text-diff';
import type { DropHandle } from './use-drop';

/** Parts that are told by a digest alone have no text to compare. */
const WITHOUT_TEXT: { [N in PartName]?: string } = {
  file: 'The file there is not the one that was sent. Remove the video there and send it again.',
  picture: 'The picture there is another one.',
  video: 'The video is gone from the site. Send it again, or remove it here.',
};

/** What the site shows otherwise than it was meant, and the three ways on. */
export function Differences({ handle }: { handle: DropHandle }) {
  const { view } = handle;
  const sure = useSure();
  const { channel, differences, mayTakeOver } = view;
  if (differences.length === 0) return null;
  const open = undecided(differences);
  const live = channel.drop?.state === 'live';
  const rightable = open.length > 0 && !open.some(({ part }) => part === 'file' || part === 'video');
  const putRight = async () => {
    // What was changed here and not sent goes along.
    const question = {
      title: `Put it right on ${channel.name}?`,
      follows: [`What you have changed here goes out, too: ${channel.changes.map((each) => each.field).join(', ')}.`],
      yes: 'Send all of it',
    };
    if (channel.changes.length > 0 && !(await sure(question))) return;
    await handle.settleDifferences('put right');
  };
  const leavable = live || (channel.drop?.actions.includes('accept') ?? false);
  return (
    <Part
      name={`Different on ${channel.siteName}`}
      says={live ? 'Somebody has changed it there. Nothing stands still for it.' : 'The video waits until you decide.'}
    >
      {differences.map(({ part, field, meant, shown, left }) => (
        <section key={field} aria-label={field}>
          <h3 className="mb-1 flex gap-2">
            {field}
            {left && <span className="font-normal text-[13px] text-soft">left as it is</span>}
          </h3>
          {WITHOUT_TEXT[part] ? (
            <p>{WITHOUT_TEXT[part]}</p>
          ) : (
            <TextDiff was={meant} is={shown} wasName="As it was meant" isName={`As ${channel.siteName} shows it`} />
          )}
        </section>
      ))}
      {open.length > 0 && (
        <div className="flex flex-wrap gap-2">
          {rightable && (
            <Button look="press" onClick={() => void putRight()}>
              Put it right there
            </Button>
          )}
          {mayTakeOver && <Button onClick={() => void handle.settleDifferences('take over')}>Take it over here</Button>}
          {leavable && <Button onClick={() => void handle.settleDifferences('leave')}>{BUTTONS.leaveIt}</Button>}
        </div>
      )}
    </Part>
  );
}

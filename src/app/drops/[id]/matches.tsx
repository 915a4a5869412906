'use client';

import { useState } from 'react';
import { floor, fraction, toNumber, viewerTime } from '@/core/time';
import type { MatchWay } from '@/desk/rights/settle-matches';
import type { MatchView } from '@/desk/views/match-view';
import { Button } from '@/ui/button';
import { Moment } from '@/ui/moment';
import { useSure } from '@/ui/sure';
import { MatchRuler } from './match-ruler';
import { Part } from './part';
import { SoundPick } from './sound-pick';
import type { DropHandle } from './use-drop';

/** What a person has chosen for one match. */
interface Choice {
  way: MatchWay | '';
  text: string;
  sound: { id: string; name: string } | undefined;
}

const NOTHING: Choice = { way: '', text: '', sound: undefined };
const IN_FILE: readonly string[] = ['silence', 'swap', 'leave out'];

const STATE_WORDS: Record<MatchView['state'], string> = {
  open: '▲ needs you',
  agreed: '● agreed to',
  disputed: '○ disputed, waiting for an answer',
  withdrawn: '● let go',
  upheld: '▲ they stay with it',
};

/** The rights matches of a drop: what was found, what it means, and the ways on. */
export function Matches({ handle }: { handle: DropHandle }) {
  const { view } = handle;
  const sure = useSure();
  const [choices, setChoices] = useState<Record<string, Choice>>({});
  const current = view.matches.filter((match) => match.current);
  const before = view.matches.filter((match) => !match.current);
  if (view.matches.length === 0) return null;
  const open = current.filter((match) => match.open);
  const chosen = open.flatMap((match) => {
    const choice = choices[match.id] ?? NOTHING;
    return choice.way === '' ? [] : [{ match, ...choice }];
  });
  const inFile = chosen.filter(({ way }) => IN_FILE.includes(way));
  const settle = async () => {
    const agreed = inFile.length > 0 ? [] : chosen.filter(({ way }) => way === 'agree');
    const follows = [
      ...(inFile.length > 0 ? [newFileWords(view.channel)] : []),
      ...(inFile.length > 0 && chosen.length > inFile.length
        ? ['Other matches are found again in the new file. Settle them then.']
        : []),
      ...agreed.map(({ match }) => `${match.owner} ${match.asksWords}. You cannot take that back from here.`),
    ];
    if (follows.length > 0) {
      const yes = inFile.length > 0 ? 'Make the file and send it' : 'Agree';
      if (!(await sure({ title: 'Do this?', follows, yes }))) return;
    }
    const ways = (inFile.length > 0 ? inFile : chosen).map(({ match, way, text, sound }) => ({
      match: match.id,
      way,
      ...(way === 'dispute' && { text }),
      ...(way === 'swap' && { sound: sound?.id }),
    }));
    if (await handle.settleMatches(ways)) setChoices({});
  };
  return (
    <Part name="Rights matches" says="Other people say that something in this video is theirs.">
      {view.length && current.length > 0 && <MatchRuler matches={current} length={view.length} />}
      {current.map((match, index) => (
        <Match
          key={match.id}
          match={match}
          number={index + 1}
          handle={handle}
          choice={choices[match.id] ?? NOTHING}
          onChoose={(choice) => setChoices((all) => ({ ...all, [match.id]: choice }))}
        />
      ))}
      {open.length > 0 && (
        <div className="flex flex-wrap items-center gap-3">
          {chosen.length > 0 && (
            <Button look="press" onClick={() => void settle()}>
              {inFile.length > 0 ? 'Send it without that' : 'Do what is chosen'}
            </Button>
          )}
          <span className="text-[13px] text-soft">
            {chosen.length === 0 ? 'Choose a way on for each match.' : `${chosen.length} of ${open.length} chosen`}
          </span>
        </div>
      )}
      {before.length > 0 && (
        <details className="text-[13px]">
          <summary className="cursor-pointer">In files sent before: {before.length}</summary>
          <ul className="mt-1 grid gap-1">
            {before.map((match) => (
              <li key={match.id}>
                <Moment at={match.foundAt} /> · “{match.work}”, {match.owner} {match.asksWords}
              </li>
            ))}
          </ul>
        </details>
      )}
    </Part>
  );
}

interface MatchProps {
  match: MatchView;
  number: number;
  handle: DropHandle;
  choice: Choice;
  onChoose: (choice: Choice) => void;
}

function Match({ match, number, handle, choice, onChoose }: MatchProps) {
  const { span, work, owner, asksWords, means, dispute, state, open } = match;
  const stamp = (at: MatchView['span']['from']) => viewerTime(fraction(floor(at)), toNumber(at));
  return (
    <section aria-label={`Match ${number}`} className="grid gap-1.5 border-line border-t pt-3">
      <h3 className="flex flex-wrap gap-x-3">
        <span>
          {number} · {stamp(span.from)}–{stamp(span.to)} “{work}”
        </span>
        <span className={`text-[13px] ${open ? 'text-snag' : 'text-live'}`}>{STATE_WORDS[state]}</span>
      </h3>
      <p>
        <b className="font-semibold">{owner}</b> {asksWords}.
      </p>
      <ul className="grid gap-0.5 text-[13px] text-soft">
        {means.map((each) => (
          <li key={each}>{each}</li>
        ))}
      </ul>
      {dispute && (
        <p className="text-[13px]">
          You wrote: “{dispute.text}”{' '}
          {dispute.answer ? (
            <>They answered: “{dispute.answer}”</>
          ) : (
            dispute.answerBy && (
              <>
                An answer comes by <Moment at={dispute.answerBy} />.
              </>
            )
          )}
        </p>
      )}
      {open && <Ways match={match} handle={handle} choice={choice} onChoose={onChoose} />}
    </section>
  );
}

/** What is done to the video that is there where a new file goes up. */
function newFileWords({ name, drop }: DropHandle['view']['channel']): string {
  if (drop?.state !== 'live' && !drop?.replacing) {
    return `A new file is made, and goes to ${name} as a new video. The one that is there is removed, and its link ends.`;
  }
  const then = drop.otherFileStays ? 'Then it is closed, and its link ends.' : 'Its link stays.';
  return `A new file is made, and goes to ${name}. The video that people see stays until the new one is checked. ${then}`;
}

/** What each way does, in a line. */
const WAYS: Record<MatchWay, { name: string; says: string }> = {
  silence: {
    name: 'Take the sound off there',
    says: 'A new file without sound in that part. The rest stays as it is, but for some tenths of a second around.',
  },
  swap: { name: 'Put other sound there', says: 'A new file with a sound of yours in that part.' },
  'leave out': { name: 'Leave that part out', says: 'A new file without that part. Chapters and captions move along.' },
  dispute: { name: 'Dispute it', says: 'You write why it is wrong, and they answer.' },
  agree: { name: 'Agree', says: 'The owner gets what is asked.' },
};

function Ways({ match, handle, choice, onChoose }: Omit<MatchProps, 'number'>) {
  const isLive = handle.view.channel.drop?.state === 'live';
  const ways = (Object.keys(WAYS) as MatchWay[]).filter((way) => {
    if (way === 'agree') return match.mayAgree;
    if (way === 'dispute') return match.mayDispute;
    return isLive || handle.view.channel.drop?.snag?.kind === 'rights';
  });
  return (
    <fieldset className="grid gap-1.5">
      <legend className="mb-1 font-semibold">Ways on</legend>
      {ways.map((way) => (
        <label key={way} className="flex items-start gap-2">
          <input
            type="radio"
            name={`way ${match.id}`}
            checked={choice.way === way}
            onChange={() => onChoose({ ...choice, way })}
            className="mt-1 size-4 accent-copper"
          />
          <span>
            {WAYS[way].name}{' '}
            <span className="text-[13px] text-soft">
              {WAYS[way].says}
              {way === 'dispute' &&
                (isLive ? ' The video stays as it is until then.' : ' The video waits for the answer.')}
            </span>
          </span>
        </label>
      ))}
      {choice.way === 'dispute' && (
        <label className="grid gap-0.5">
          <span className="text-[13px] text-soft">Why it is wrong</span>
          <textarea
            value={choice.text}
            maxLength={2000}
            rows={3}
            placeholder="Such as: We have a licence for this piece, number …"
            onChange={(event) => onChoose({ ...choice, text: event.target.value })}
            className="w-full rounded-lg border border-edge bg-paper px-3 py-2"
          />
        </label>
      )}
      {choice.way === 'swap' && (
        <SoundPick
          videoId={handle.view.video.id}
          sound={choice.sound}
          onSound={(sound) => onChoose({ ...choice, sound })}
        />
      )}
      <p className="text-[13px] text-soft">
        Or{' '}
        <a href={`/videos/${handle.view.video.id}#file`} className="textlink">
          replace the file
        </a>{' '}
        with another cut, then {isLive ? 'send it from here' : 'try again here'}.
      </p>
    </fieldset>
  );
}

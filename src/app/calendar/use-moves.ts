import { set, setMinutes } from 'date-fns';
import { useRef, useState } from 'react';
import type { Moment } from '@/core/release';
import { useActs } from '@/ui/saving/use-acts';
import { dayKey, type Opening, wallIn } from './days';

interface Move {
  entry: Opening['entries'][number];
  from: Moment;
  to: Moment;
}

/** Whether an opening can be moved: it is to come, at a time that somebody set. */
export const isMovable = ({ entries }: Opening): boolean => entries.every(({ opensAt }) => opensAt !== null);

/** The same time of day, by the clocks it was said in, on another day of the Calendar. */
function movedTo(opensAt: Moment, from: Date, to: Date): Moment {
  // By whole days, so that a time that is another day where it was said stays so.
  const days = Math.round(
    (Date.parse(`${dayKey(to)}T00:00:00Z`) - Date.parse(`${dayKey(from)}T00:00:00Z`)) / 86_400_000,
  );
  const day = new Date(Date.parse(`${opensAt.wall.slice(0, 10)}T00:00:00Z`) + days * 86_400_000);
  return { wall: `${day.toISOString().slice(0, 10)}${opensAt.wall.slice(10)}`, zone: opensAt.zone };
}

const HOURS_BACK = [0.5, 1, 2];

/** Another instant, by the clocks that the time was said in. */
function momentAt({ zone }: Moment, at: Date): Moment {
  const wall = wallIn(zone, at);
  // Where the clocks go back, they have shown the same before.
  const isSecond = HOURS_BACK.some((hours) => wallIn(zone, new Date(at.getTime() - hours * 3_600_000)) === wall);
  return { wall, zone, ...(isSecond && { which: 'second' as const }) };
}

/** The instant to which an opening would be moved that is let go over a day, another hour or a free place. */
export function movedOnto(opening: Opening, onto: { day?: Date; at?: Date; hour?: Date }): Date | undefined {
  if (onto.at) return onto.at;
  // In another hour, at the same minute of it.
  if (onto.hour) return setMinutes(onto.hour, opening.at.getMinutes());
  const { at } = opening;
  return onto.day && set(onto.day, { hours: at.getHours(), minutes: at.getMinutes(), seconds: at.getSeconds() });
}

/** Moves of openings to other days or times, which can be taken back one by one. */
export function useMoves(concerns: readonly unknown[]) {
  const { save } = useActs(concerns);
  const [made, setMade] = useState<Move[][]>([]);
  const onItsWay = useRef(false);
  const put = ({ entry, from, to }: Move) => {
    const { videoId, channel, setHere } = entry;
    const on = { opensAt: from };
    return setHere
      ? save(`/api/videos/${videoId}/channels`, {
          method: 'PATCH',
          json: { channelId: channel.id, set: { opensAt: to }, on },
        })
      : save(`/api/videos/${videoId}`, { method: 'PATCH', json: { opensAt: to, on } });
  };
  /** Those that were kept are returned: they can be taken back, also where another one was refused. */
  const putAll = async (moves: readonly Move[]) => {
    const kept = [];
    for (const move of moves) if ((await put(move)) === 'saved') kept.push(move);
    return kept;
  };
  /** Whether something was moved is returned. */
  const moveBy = async (opening: Opening, next: (opensAt: Moment) => Moment): Promise<boolean> => {
    const moves = opening.entries.flatMap((entry): Move[] =>
      entry.opensAt ? [{ entry, from: entry.opensAt, to: next(entry.opensAt) }] : [],
    );
    // What is set on the video moves all of its channels at once.
    const once = moves.filter(({ entry }, index) => {
      return entry.setHere || moves.findIndex((each) => !each.entry.setHere) === index;
    });
    // What is pressed while it is on its way would move it from where it was.
    if (onItsWay.current) return false;
    onItsWay.current = true;
    const kept = await putAll(once).finally(() => {
      onItsWay.current = false;
    });
    if (kept.length > 0) setMade((all) => [...all, kept]);
    return kept.length > 0;
  };
  return {
    /** Whether it was moved is returned. */
    async move(opening: Opening, to: Date): Promise<boolean> {
      if (!isMovable(opening) || dayKey(opening.at) === dayKey(to)) return false;
      return moveBy(opening, (opensAt) => movedTo(opensAt, opening.at, to));
    },
    /** To an instant, such as a free place or an hour. */
    async moveTo(opening: Opening, at: Date) {
      if (!isMovable(opening) || opening.at.getTime() === at.getTime()) return;
      await moveBy(opening, (opensAt) => momentAt(opensAt, at));
    },
    mayUndo: made.length > 0,
    async undo() {
      const last = made.at(-1);
      if (!last) return;
      setMade((all) => all.slice(0, -1));
      await putAll(last.map(({ entry, from, to }) => ({ entry, from: to, to: from })));
    },
  };
}

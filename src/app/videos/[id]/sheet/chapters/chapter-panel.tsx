'use client';

import { useMemo, useState } from 'react';
import { chapterFindings, chapterLines } from '@/core/chapters';
import type { ChapterWay } from '@/core/delivery';
import { toNumber } from '@/core/time';
import { usePlayer } from '../time-line/player-state';
import { useTimeLine } from '../time-line/time-line-state';
import { ChapterChoice } from './chapter-choice';
import { Repairs } from './chapter-repairs';

const WAYS: Record<ChapterWay['way'], string> = {
  description: 'as lines below the description',
  'webvtt file': 'as a chapter file beside the video',
};

/** The chapters as viewers see them at each site, which markers they are made from, and what the site's rules say. */
export function ChapterPanel({ onPickFile, beside }: { onPickFile: () => void; beside: boolean }) {
  const { handle, markers, chapters, leftOut, duration } = useTimeLine();
  const { seek } = usePlayer();
  const sites = useMemo(() => {
    const connected = handle.sheet.channels.filter((channel) => channel.connected || channel.ticked);
    return [...new Map(connected.map(({ site, rules }) => [site, rules])).values()];
  }, [handle.sheet.channels]);
  const [chosenSite, setChosenSite] = useState('');
  const rules = sites.find(({ name }) => name === chosenSite) ?? sites.find((site) => site.chapters) ?? sites[0];
  const way = rules?.chapters;
  const findings = useMemo(
    () => (way ? chapterFindings(chapters, way.rules, duration) : []),
    [way, chapters, duration],
  );
  const lines = useMemo(() => chapterLines(chapters, duration), [chapters, duration]);
  const notes = markers.filter((marker) => !marker.seen).length;
  const repairsOf = (index: number | undefined) =>
    way && (
      <Repairs
        findings={findings.filter((finding) => finding.index === index)}
        chapters={chapters}
        rules={way.rules}
        duration={duration}
      />
    );
  return (
    <div
      id="chapters"
      className={`flex flex-col gap-2 border-line px-3.5 py-3 text-sm ${beside ? 'md:absolute md:inset-y-0 md:right-0 md:w-[300px] md:overflow-y-auto md:border-l' : ''}`}
    >
      <h3>As viewers see them</h3>
      {sites.length > 1 && (
        <fieldset aria-label="Site" className="flex flex-wrap gap-1">
          {sites.map(({ name }) => (
            <button
              key={name}
              type="button"
              aria-pressed={name === rules?.name}
              onClick={() => setChosenSite(name)}
              className={`rounded-full border px-2.5 py-0.5 text-[13px] ${name === rules?.name ? 'border-rim bg-held-wash font-semibold' : 'border-line hover:bg-sunk'}`}
            >
              {name}
            </button>
          ))}
        </fieldset>
      )}
      {rules && (
        <p className="text-[13px] text-soft">
          {rules.name}: {way ? WAYS[way.way] : 'shows no chapters'}
        </p>
      )}
      {markers.length === 0 ? (
        <p className="text-soft">
          Drop the edit’s marker file here (EDL, OpenTimelineIO, WebVTT, Matroska, JSON or FFMETADATA chapters, CSV,
          SubRip, a description with times), press M at the playhead, or{' '}
          <button type="button" onClick={onPickFile} className="textlink">
            pick a file
          </button>
          .
        </p>
      ) : (
        <ChapterChoice />
      )}
      {chapters.length > 0 && (
        <ol className="-mx-1.5">
          {chapters.map((chapter, index) => {
            const ofChapter = findings.filter((finding) => finding.index === index);
            return (
              <li
                key={chapter.markerId}
                className={`rounded-md px-1.5 ${ofChapter.length > 0 ? 'mb-1 bg-snag-wash pb-1.5' : ''}`}
              >
                <button
                  type="button"
                  onClick={() => seek(toNumber(chapter.time) + 0.001)}
                  className="flex w-full gap-2.5 py-1 text-left hover:underline"
                >
                  <span className="w-[46px] flex-none text-right font-mono text-soft">{lines[index]?.stamp}</span>
                  <span>{chapter.title || <i>without a name</i>}</span>
                </button>
                {ofChapter.length > 0 && <div className="ml-[56px]">{repairsOf(index)}</div>}
              </li>
            );
          })}
        </ol>
      )}
      {repairsOf(undefined)}
      {leftOut.length > 0 && (
        <details className="text-[13px]">
          <summary className="cursor-pointer text-snag">
            ▲ {leftOut.length} chosen {leftOut.length === 1 ? 'marker becomes' : 'markers become'} no chapter
          </summary>
          <ul className="mt-1 grid gap-0.5">
            {leftOut.slice(0, 100).map(({ marker, why }) => (
              <li key={marker.id}>
                “{marker.name}” {why}
              </li>
            ))}
            {leftOut.length > 100 && <li>and {leftOut.length - 100} more</li>}
          </ul>
        </details>
      )}
      {markers.length > 0 && (
        <p className="mt-auto pt-1 text-[13px] text-soft">
          {notes === 0
            ? 'Every marker is a chapter.'
            : `${notes} ${notes === 1 ? 'note stays' : 'notes stay'} private.`}{' '}
          <button type="button" onClick={onPickFile} className="textlink">
            Use another marker file
          </button>
        </p>
      )}
    </div>
  );
}

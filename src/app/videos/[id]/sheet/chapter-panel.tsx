'use client';

import type { SheetView } from '@/desk/views';
import { TickBox } from '@/ui/tick-box';
import { usePlayer } from './player-state';
import type { SheetHandle } from './use-sheet';

/** Colours that occur, each with how many markers have it. */
function coloursOf({ markers }: SheetView): [colour: string, count: number][] {
  const counts = new Map<string, number>();
  for (const { colour } of markers) counts.set(colour, (counts.get(colour) ?? 0) + 1);
  return [...counts];
}

/** The chapters as viewers see them, and which markers they are made from. */
export function ChapterPanel({ handle, onPickFile }: { handle: SheetHandle; onPickFile: () => void }) {
  const { sheet, save } = handle;
  const { seek } = usePlayer();
  const colours = coloursOf(sheet);
  const findings = sheet.channels.find((channel) => channel.ticked)?.chapterFindings ?? [];
  const notes = sheet.markers.filter((marker) => !sheet.chapterColours.includes(marker.colour)).length;
  const choose = (colour: string, wanted: boolean) => {
    const rest = sheet.chapterColours.filter((each) => each !== colour);
    void save({ chapterColours: wanted ? [...rest, colour] : rest });
  };
  return (
    <div id="chapters" className="flex flex-col gap-2 border-line px-3.5 py-3 text-sm md:border-l">
      <h2>Chapters, as viewers see them</h2>
      {sheet.markers.length === 0 && (
        <p className="text-soft">
          Drop the edit’s marker file here (EDL, OpenTimelineIO, WebVTT, Matroska, JSON or FFMETADATA chapters, CSV,
          SubRip, a description with times), press M at the playhead, or{' '}
          <button type="button" onClick={onPickFile} className="textlink">
            pick a file
          </button>
          .
        </p>
      )}
      {colours.length > 0 && (
        <fieldset className="flex flex-wrap gap-x-3.5 gap-y-1">
          <legend className="text-[13px] text-soft">Markers that are for viewers</legend>
          {colours.map(([colour, count]) => (
            <TickBox
              key={colour}
              ticked={sheet.chapterColours.includes(colour)}
              onTick={(ticked) => choose(colour, ticked)}
              className="py-0.5"
            >
              {colour || 'no colour'} <span className="text-soft">({count})</span>
            </TickBox>
          ))}
        </fieldset>
      )}
      {sheet.chapters.length > 0 && (
        <ol className="-mx-1.5 max-h-[300px] overflow-y-auto">
          {sheet.chapters.map((chapter, index) => {
            const own = findings.filter((finding) => finding.index === index);
            return (
              <li key={chapter.seconds} className={`rounded-md px-1.5 ${own.length > 0 ? 'bg-snag-wash' : ''}`}>
                <button
                  type="button"
                  onClick={() => seek(chapter.seconds)}
                  className="flex w-full gap-2.5 py-1 text-left hover:underline"
                >
                  <span className="w-[46px] flex-none text-right font-mono text-soft">{chapter.stamp}</span>
                  <span>
                    {chapter.title}
                    {chapter.repair && (
                      <span className="block text-[13px] text-soft">
                        {chapter.repair}, so that the first is at 0:00
                      </span>
                    )}
                    {own.map((finding) => (
                      <span key={finding.what} className="block text-[13px] text-snag">
                        ▲ {finding.what}
                      </span>
                    ))}
                  </span>
                </button>
              </li>
            );
          })}
        </ol>
      )}
      {findings
        .filter((finding) => finding.index === undefined)
        .map((finding) => (
          <p key={finding.what} className="text-snag">
            ▲ {finding.what}
          </p>
        ))}
      {sheet.markers.length > 0 && (
        <p className="mt-auto text-[13px] text-soft">
          {notes === 0
            ? 'Every marker is a chapter.'
            : `${notes} ${notes === 1 ? 'note stays' : 'notes stay'} private.`}{' '}
          <button type="button" onClick={onPickFile} className="textlink">
            Take another marker file
          </button>
        </p>
      )}
    </div>
  );
}

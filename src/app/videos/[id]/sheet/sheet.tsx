'use client';

import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { isSent } from '@/core/drop';
import { MARKER_FILE_ENDINGS } from '@/core/markers/file-endings';
import type { MarkersView, SheetView } from '@/desk/views/views';
import { useArrivals } from '@/ui/arrivals/arrivals';
import { droppedFiles } from '@/ui/arrivals/dropped-files';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { FilePick } from '@/ui/file-pick';
import { useNotices } from '@/ui/notices';
import { PartBoundary } from '@/ui/part-boundary';
import { useSure } from '@/ui/sure';
import { whenIdle } from '@/ui/when-idle';
import { Rail } from './channels/rail';
import { BetterCut } from './cut/better-cut';
import { NotRead } from './cut/not-read';
import { FramingProvider } from './framing/framing-state';
import { SectionsProvider } from './sections/sections-provider';
import { SheetSection } from './sections/sheet-section';
import { SheetHead } from './sheet-head';
import { SheetKeys } from './sheet-keys';
import { PlayerProvider } from './time-line/player-state';
import { TimeLineProvider } from './time-line/time-line-state';
import { type SheetHandle, useSheet } from './use-sheet';
import { useTakeFile } from './use-take-file';
import { WordsBlock } from './words/words-block';

/** One video on one page, in the order of the work. */
export function Sheet({ first, firstMarkers }: { first: SheetView; firstMarkers: MarkersView }) {
  const handle = useSheet(first);
  const { sheet } = handle;
  const { arrivals } = useArrivals();
  const taking = useTakeFile(handle);
  const [over, setOver] = useState(false);
  useEffect(() => whenIdle(loadParts), []);
  const markerFile = useRef<HTMLInputElement>(null);
  const pickMarkers = () => markerFile.current?.click();
  return (
    <PlayerProvider rate={sheet.cut?.facts?.video.rate}>
      <TimeLineProvider handle={handle} first={firstMarkers}>
        <FramingProvider>
          <SectionsProvider handle={handle}>
            <SheetKeys>
              <SheetHead handle={handle} />
              <main
                className={`grid grid-cols-[minmax(0,1fr)] items-start gap-5 px-4 py-4 max-lg:pb-28 sm:px-7 lg:grid-cols-[minmax(0,1fr)_322px] ${over ? 'bg-copper-wash' : ''}`}
                onDragOver={(event) => {
                  event.preventDefault();
                  setOver(true);
                }}
                onDragLeave={() => setOver(false)}
                onDrop={(event) => {
                  event.preventDefault();
                  setOver(false);
                  void droppedFiles(event.nativeEvent).then((files) => Promise.all(files.map(taking.takeFile)));
                }}
              >
                <div className="grid min-w-0 grid-cols-[minmax(0,1fr)] gap-3">
                  <FilePick
                    input={markerFile}
                    label="Marker file"
                    accept={MARKER_FILE_ENDINGS.join(',')}
                    onPick={([file]) => file && taking.takeFile(file)}
                  />
                  {taking.waiting && (
                    <PartBoundary>
                      <ImportDialog taking={taking} />
                    </PartBoundary>
                  )}
                  <BeingDeleted handle={handle} />
                  <SameFile sheet={sheet} />
                  <NotRead handle={handle} />
                  <BetterCut />
                  <SheetSection id="file">
                    <FileBlock handle={handle} taking={taking} arrival={arrivals.get(sheet.cut?.id ?? '')} />
                  </SheetSection>
                  <SheetSection
                    id="chapters"
                    acts={
                      sheet.markersVersion === 0 && (
                        <Button look="plain" onClick={pickMarkers}>
                          Pick a marker file
                        </Button>
                      )
                    }
                  >
                    <TimeLineBlock onPickFile={pickMarkers} />
                  </SheetSection>
                  <SheetSection id="words">
                    <WordsBlock handle={handle} />
                  </SheetSection>
                  <SheetSection id="markers">
                    <MarkerTable />
                  </SheetSection>
                  <SheetSection id="picture">
                    <PictureBlock handle={handle} taking={taking} />
                  </SheetSection>
                  <SheetSection id="captions">
                    <CaptionsBlock handle={handle} taking={taking} />
                  </SheetSection>
                  <SheetSection id="declarations">
                    <DeclarationsBlock handle={handle} />
                  </SheetSection>
                  <SheetSection id="history">
                    <div className="px-4 py-3.5">
                      <History channels={sheet.channels} />
                    </div>
                  </SheetSection>
                </div>
                <aside className="grid gap-3 lg:sticky lg:top-[104px] lg:max-h-[calc(100vh-116px)] lg:grid-rows-[minmax(0,1fr)_auto]">
                  <Rail handle={handle} />
                  <Discard handle={handle} />
                </aside>
              </main>
            </SheetKeys>
          </SectionsProvider>
        </FramingProvider>
      </TimeLineProvider>
    </PlayerProvider>
  );
}

const parts = {
  file: () => import('./cut/file-block').then((part) => part.FileBlock),
  timeLine: () => import('./time-line/time-line-block').then((part) => part.TimeLineBlock),
  markers: () => import('./markers/marker-table').then((part) => part.MarkerTable),
  picture: () => import('./picture-block').then((part) => part.PictureBlock),
  captions: () => import('./captions-block').then((part) => part.CaptionsBlock),
  declarations: () => import('./declarations-block').then((part) => part.DeclarationsBlock),
  history: () => import('@/ui/drop/history').then((part) => part.History),
  markerFile: () => import('./markers/import-dialog').then((part) => part.ImportDialog),
};
const FileBlock = dynamic(parts.file);
const TimeLineBlock = dynamic(parts.timeLine);
const MarkerTable = dynamic(parts.markers);
const PictureBlock = dynamic(parts.picture);
const CaptionsBlock = dynamic(parts.captions);
const DeclarationsBlock = dynamic(parts.declarations);
const History = dynamic(parts.history);
const ImportDialog = dynamic(parts.markerFile);

/** What is folded is loaded when there is time for it, so that it opens at once, and without the line. */
const loadParts = () => Promise.all(Object.values(parts).map((load) => load()));

/** Says that the video goes once its sites have removed it, and lets a person keep it. */
function BeingDeleted({ handle }: { handle: SheetHandle }) {
  const { sheet, act } = handle;
  if (!sheet.deleteAsked) return null;
  return (
    <section
      aria-label="Being deleted"
      className="enamel flex flex-wrap items-center gap-3 bg-snag-wash px-4 py-2.5 text-sm"
    >
      <p>
        <b className="text-snag">▲ This video is being deleted.</b> It goes as soon as its sites have removed it.
      </p>
      <Button onClick={() => act(`/api/videos/${sheet.id}`, { method: 'PUT' })}>Keep it</Button>
    </section>
  );
}

/** Says that another video has the same file, so that nobody works on the wrong one. */
function SameFile({ sheet }: { sheet: SheetView }) {
  if (!sheet.sameFile) return null;
  return (
    <p className="enamel bg-held-wash px-4 py-2.5 text-sm [overflow-wrap:anywhere]">
      <b className="text-held">Twice here: </b>The same file is in “{sheet.sameFile.title}”, too.{' '}
      <Link href={`/videos/${sheet.sameFile.videoId}`} className="textlink">
        Open that one
      </Link>
    </p>
  );
}

function Discard({ handle }: { handle: SheetHandle }) {
  const router = useRouter();
  const sure = useSure();
  const { say, trouble } = useNotices();
  const { sheet } = handle;
  const there = sheet.channels.filter(({ drop }) => drop && isSent(drop.state));
  const names = new Intl.ListFormat('en').format(there.map(({ name }) => name));
  const discard = async () => {
    const question = {
      title: `Delete “${sheet.title || 'this video'}”?`,
      follows: [
        ...(there.length > 0
          ? [`It is removed from ${names} first; its views, comments and links there are gone.`]
          : []),
        'Its file, words, markers and pictures are gone here. This cannot be undone.',
      ],
      yes: 'Delete it',
    };
    if (!(await sure(question))) return;
    try {
      const { gone } = await ask<{ gone: boolean }>(`/api/videos/${sheet.id}`, { method: 'DELETE' });
      say(gone ? `“${sheet.title}” is deleted.` : `“${sheet.title}” is deleted as soon as it is gone from ${names}.`);
      router.push('/');
    } catch (error) {
      trouble(error);
    }
  };
  return (
    <Button look="plain" onClick={discard} className="justify-self-start">
      {BUTTONS.deleteVideo}
    </Button>
  );
}

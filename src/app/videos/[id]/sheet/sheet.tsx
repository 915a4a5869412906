'use client';

import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import type { MarkersView, SheetView } from '@/desk/look/views';
import { useArrivals } from '@/ui/arrivals/arrivals';
import { droppedFiles } from '@/ui/arrivals/dropped-files';
import { Button } from '@/ui/button';
import { SavingState } from '@/ui/saving/saving-state';
import { useSure } from '@/ui/sure';
import { UndoRedo } from '@/ui/undo-redo';
import { CaptionsBlock } from './captions-block';
import { History } from './channels/history';
import { Rail } from './channels/rail';
import { BetterCut } from './cut/better-cut';
import { CutBlock } from './cut/cut-block';
import { CutFactsBlock } from './cut/cut-facts-block';
import { NotRead } from './cut/not-read';
import { DeclarationsBlock } from './declarations-block';
import { ImportDialog } from './markers/import-dialog';
import { MarkerTable } from './markers/marker-table';
import { PictureBlock } from './picture-block';
import { PlayerProvider } from './time-line/player-state';
import { TimeLineProvider } from './time-line/time-line-state';
import { type SheetHandle, useSheet } from './use-sheet';
import { useTakeFile } from './use-take-file';
import { AsThere } from './words/as-there';
import { WordsBlock } from './words/words-block';

/** One video on one page, in the order of the work. */
export function Sheet({ first, firstMarkers }: { first: SheetView; firstMarkers: MarkersView }) {
  const handle = useSheet(first);
  const { sheet, undo, redo } = handle;
  const { arrivals } = useArrivals();
  const taking = useTakeFile(handle);
  const [over, setOver] = useState(false);
  return (
    <PlayerProvider rate={sheet.cut?.facts?.video.rate}>
      <TimeLineProvider handle={handle} first={firstMarkers}>
        <main
          className={`grid items-start gap-6 px-4 py-4 sm:px-7 lg:grid-cols-[minmax(0,1fr)_318px] ${over ? 'bg-copper-wash' : ''}`}
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
          <div className="grid gap-4">
            <div>
              <p className="mb-1 text-[13px] text-soft">{sheet.cut?.fileName ?? 'no cut yet'}</p>
              <div className="flex flex-wrap items-center gap-x-3.5 gap-y-1">
                <h1>{sheet.title || 'Without a title'}</h1>
                <SavingState />
                <span className="ml-auto flex gap-1">
                  <UndoRedo can={sheet} undo={undo} redo={redo} />
                </span>
              </div>
            </div>
            <ImportDialog taking={taking} />
            <SameFile sheet={sheet} />
            <NotRead handle={handle} />
            <BetterCut />
            <CutBlock taking={taking} arrival={arrivals.get(sheet.cut?.id ?? '')} />
            <MarkerTable />
            <CaptionsBlock handle={handle} taking={taking} />
            <WordsBlock handle={handle} />
            <AsThere handle={handle} />
            <PictureBlock handle={handle} taking={taking} />
            <DeclarationsBlock handle={handle} />
            <History channels={sheet.channels} />
          </div>
          <aside className="grid gap-4 lg:sticky lg:top-4">
            <Rail handle={handle} />
            <CutFactsBlock cut={sheet.cut} taking={taking} />
            <Discard handle={handle} />
          </aside>
        </main>
      </TimeLineProvider>
    </PlayerProvider>
  );
}

/** Says that another video has the same file, so that nobody works on the wrong one. */
function SameFile({ sheet }: { sheet: SheetView }) {
  if (!sheet.sameFile) return null;
  return (
    <p className="enamel bg-held-wash px-4 py-2.5 text-sm">
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
  const { sheet, act } = handle;
  const gone = sheet.channels.every(({ drop }) => !drop || drop.state === 'draft' || drop.state === 'removed');
  if (!gone) return null;
  const discard = async () => {
    const question = {
      title: `Delete “${sheet.title}”?`,
      follows: ['Its file, words, markers and pictures are gone here. This cannot be undone.'],
      yes: 'Delete it',
    };
    if (!(await sure(question))) return;
    if (await act(`/api/videos/${sheet.id}`, { method: 'DELETE' })) router.push('/');
  };
  return (
    <Button look="plain" onClick={discard} className="justify-self-start">
      Delete this video
    </Button>
  );
}

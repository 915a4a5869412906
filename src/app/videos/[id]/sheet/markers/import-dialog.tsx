'use client';

import { useState } from 'react';
import type { ImportWay, MarkerFormat } from '@/core/markers';
import type { MarkerPreview } from '@/desk/video/markers';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { SheetDialog } from '@/ui/sheet-dialog';
import type { FileTaking } from '../use-take-file';
import { TableColumnsChoice } from './table-columns-choice';

const WAYS: [way: ImportWay, name: string][] = [
  ['merge', 'Merge by time'],
  ['add', 'Add beside'],
  ['replace', BUTTONS.replaceAll],
];

const FORMATS: Record<MarkerFormat, string> = {
  edl: 'CMX 3600 EDL',
  otio: 'OpenTimelineIO',
  webvtt: 'WebVTT',
  ffmetadata: 'FFMETADATA',
  matroska: 'Matroska chapters',
  json: 'JSON chapters',
  csv: 'a table',
  text: 'a text with times',
  subrip: 'SubRip',
  'inside the file': 'chapters inside the video',
};

/** What a way of taking the file would do, in words. */
function effectWords({ fresh, changed, gone }: MarkerPreview['effects'][ImportWay]): string {
  const says = [
    fresh > 0 && `${fresh} new`,
    changed > 0 && `${changed} changed`,
    gone > 0 && `${gone} taken away`,
  ].filter(Boolean);
  return says.length > 0 ? says.join(', ') : 'nothing changes';
}

/** Shows what a marker file brings and what would change, before it is taken. */
export function ImportDialog({ taking }: { taking: FileTaking }) {
  const { waiting, takeMarkers, takeCaptions, chooseColumns, forget } = taking;
  if (!waiting) return null;
  const { preview, name } = waiting;
  const { markers, existing, findings, table, trouble } = preview;
  const ways = existing > 0 ? WAYS : [['replace', BUTTONS.addMarkers] as const];
  return (
    <SheetDialog
      open
      onClose={forget}
      title={`${markers} markers in ${name}`}
      close={BUTTONS.cancel}
      wide={table !== undefined}
    >
      <p className="mb-3 text-soft">
        Read as {FORMATS[preview.format]}.{' '}
        {existing === 0 ? 'None are' : `${existing} ${existing === 1 ? 'is' : 'are'}`} on the ruler now. Whatever you
        choose can be undone.
      </p>
      {table && <TableColumnsChoice table={table} onChoose={chooseColumns} />}
      {trouble && <p className="mb-3 text-snag">▲ {trouble}</p>}
      {findings.length > 0 && (
        <ul className="mb-3 max-h-40 overflow-y-auto rounded-lg bg-sunk px-3 py-2 text-sm">
          {findings.slice(0, 200).map(({ at, what, done }) => (
            <li key={`${at}${what}`} className="py-0.5">
              <b>{at}</b>: {what}; {done}
            </li>
          ))}
          {findings.length > 200 && <li>and {findings.length - 200} more</li>}
        </ul>
      )}
      {markers > 0 && (
        <div className="grid gap-2">
          {ways.map(([way, says]) => (
            <div key={way} className="flex items-center gap-3">
              <Button onClick={() => takeMarkers(waiting, way)} className="w-40">
                {says}
              </Button>
              <span className="text-sm">{effectWords(preview.effects[way])}</span>
            </div>
          ))}
        </div>
      )}
      {preview.captions && <AsCaptions onTake={(language) => takeCaptions(waiting, language)} />}
    </SheetDialog>
  );
}

function AsCaptions({ onTake }: { onTake: (language: string) => void }) {
  const [language, setLanguage] = useState('en');
  return (
    <form
      className="mt-4 flex flex-wrap items-center gap-3 border-line border-t pt-3"
      onSubmit={(event) => {
        event.preventDefault();
        onTake(language);
      }}
    >
      <Button type="submit" className="w-40">
        {BUTTONS.useAsCaptions}
      </Button>
      <label className="flex items-center gap-2 text-sm">
        in the language
        <input
          value={language}
          onChange={(event) => setLanguage(event.target.value)}
          data-tip="A language tag such as en, de or pt-BR"
          className="w-20 rounded-md border border-edge bg-card px-2 py-1"
        />
      </label>
    </form>
  );
}

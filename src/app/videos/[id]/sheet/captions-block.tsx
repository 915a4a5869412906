'use client';

import { useRef } from 'react';
import { Button } from '@/ui/button';
import { FilePick } from '@/ui/file-pick';
import { languageName } from '@/ui/language-name';
import type { SheetHandle } from './use-sheet';
import type { FileTaking } from './use-take-file';

/** The caption files of a video, one a language, with what viewers would stumble over. */
export function CaptionsBlock({ handle, taking }: { handle: SheetHandle; taking: FileTaking }) {
  const { sheet, act } = handle;
  const input = useRef<HTMLInputElement>(null);
  return (
    <div id="captions" className="grid gap-2 px-4 py-3.5">
      <Button className="justify-self-start" onClick={() => input.current?.click()}>
        Add a caption file
      </Button>
      {sheet.captions.map(({ id, language, fileName, findings }) => (
        <div key={id} className="border-line border-t pt-2 text-sm">
          <div className="flex flex-wrap items-baseline gap-x-3">
            <b className="font-semibold">{languageName(language)}</b>
            <span className="text-soft">{fileName}</span>
            <span className={findings.length > 0 ? 'text-snag' : 'text-live'}>
              {findings.length > 0 ? `▲ ${findings.length} to look at` : '● No problems'}
            </span>
            <Button
              look="plain"
              className="ml-auto"
              onClick={() => act(`/api/videos/${sheet.id}/captions?captions=${id}`, { method: 'DELETE' })}
            >
              Remove
            </Button>
          </div>
          {findings.length > 0 && (
            <ul className="mt-1 max-h-28 overflow-y-auto text-[13px]">
              {findings.slice(0, 50).map(({ index, what }) => (
                <li key={`${index}${what}`}>
                  Caption {index + 1} {what}
                </li>
              ))}
            </ul>
          )}
        </div>
      ))}
      <FilePick
        input={input}
        label="Caption file"
        accept=".srt,.vtt"
        onPick={([file]) => file && taking.takeFile(file)}
      />
    </div>
  );
}

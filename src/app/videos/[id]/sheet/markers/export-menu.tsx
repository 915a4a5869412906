'use client';

import { ChevronDown } from 'lucide-react';
import { DropdownMenu } from 'radix-ui';
import type { WrittenFormat } from '@/core/markers';

const FORMATS: [format: WrittenFormat, name: string][] = [
  ['edl', 'CMX 3600 EDL'],
  ['otio', 'OpenTimelineIO'],
  ['vtt', 'WebVTT chapters'],
  ['ffmetadata', 'FFMETADATA'],
  ['matroska', 'Matroska chapters'],
  ['json', 'JSON chapters'],
  ['csv', 'CSV table'],
  ['text', 'Lines of text'],
];

const PARTS = [
  { only: 'chapters', name: 'Only chapters' },
  { only: 'all', name: 'All markers' },
];

/** Takes the markers, or only the chapters, away as a file. */
export function ExportMenu({ videoId }: { videoId: string }) {
  return (
    <DropdownMenu.Root>
      <DropdownMenu.Trigger className="inline-flex items-center gap-1 rounded-full px-3 py-1 text-copper text-sm hover:bg-copper-wash">
        Export <ChevronDown size={14} aria-hidden />
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal>
        <DropdownMenu.Content align="end" sideOffset={4} className="enamel z-30 grid grid-cols-2 gap-x-2 p-2 shadow-lg">
          {PARTS.map(({ only, name }) => (
            <DropdownMenu.Group key={only}>
              <DropdownMenu.Label className="px-2.5 py-1 text-[13px] text-soft">{name}</DropdownMenu.Label>
              {FORMATS.map(([format, title]) => (
                <DropdownMenu.Item key={format} asChild>
                  <a
                    href={`/api/videos/${videoId}/markers?as=${format}&only=${only}`}
                    download
                    className="block rounded-md px-2.5 py-1 text-sm outline-none data-highlighted:bg-copper-wash"
                  >
                    {title}
                  </a>
                </DropdownMenu.Item>
              ))}
            </DropdownMenu.Group>
          ))}
          <DropdownMenu.Item asChild>
            <a
              href={`/api/videos/${videoId}/with-chapters`}
              download
              className="col-span-2 mt-1 block rounded-md border-line border-t px-2.5 py-1.5 text-sm outline-none data-highlighted:bg-copper-wash"
            >
              The video itself, with its chapters inside
            </a>
          </DropdownMenu.Item>
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}

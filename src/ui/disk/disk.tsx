'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { binarySize } from '@/core/delivery';
import type { DiskView } from '@/desk/house/disk';
import { ask } from '../ask';
import { Button } from '../button';
import { useActs } from '../saving/use-acts';
import { useSure } from '../sure';

const KEY = ['disk'];

/** What videos take of the disk, and what of that could go. */
export function Disk() {
  const { data } = useQuery({ queryKey: KEY, queryFn: () => ask<DiskView>('/api/disk') });
  const { act } = useActs(KEY);
  const sure = useSure();
  const remove = (videoId: string, what: 'made' | 'files') =>
    act('/api/disk', { method: 'POST', json: { videoId, what } });
  const removeFiles = async ({ videoId, title }: DiskView['largest'][number]) => {
    const question = {
      title: `Delete the file of “${title}” from this disk?`,
      follows: [
        'What is at the sites stays, and so do words, chapters and picture here.',
        'To send it elsewhere, or to play it here, its file has to be added again. This cannot be undone.',
      ],
      yes: 'Delete the file',
    };
    if (await sure(question)) await remove(videoId, 'files');
  };
  if (!data) return null;
  return (
    <section id="disk" aria-label="On this disk" className="mt-7 scroll-mt-20">
      <h2>On this disk</h2>
      <p className="mt-1 mb-3 text-soft">
        {data.videos === 0
          ? 'No video has a file here.'
          : `${data.videos} ${data.videos === 1 ? 'video has its' : 'videos have their'} files here: ${binarySize(data.files)}. ${binarySize(data.made)} more were made for sites. ${binarySize(data.free)} are free.`}{' '}
        A series can delete them by itself once they are live.
      </p>
      <ul className="grid gap-2">
        {data.largest.map((use) => (
          <li key={use.videoId} className="enamel flex flex-wrap items-center gap-x-3 gap-y-1 px-4 py-2 text-sm">
            <Link
              href={`/videos/${use.videoId}`}
              className="min-w-0 flex-1 basis-60 font-semibold [overflow-wrap:anywhere] hover:underline"
            >
              {use.title || 'Without a title'}
            </Link>
            <span className="tabular-nums text-soft">
              {[
                ...(use.files > 0 ? [binarySize(use.files)] : ['its file is deleted']),
                ...(use.made > 0 ? [`${binarySize(use.made)} made for sites`] : []),
              ].join(' + ')}
            </span>
            {use.made > 0 && (
              <Button
                look="plain"
                aria-label={`Delete what was made for sites: ${use.title}`}
                onClick={() => void remove(use.videoId, 'made')}
              >
                Delete what was made for sites
              </Button>
            )}
            {use.mayGo && (
              <Button look="plain" aria-label={`Delete its file: ${use.title}`} onClick={() => void removeFiles(use)}>
                Delete its file
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

'use client';

import { useQuery, useQueryClient } from '@tanstack/react-query';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { type FormEvent, useRef, useState } from 'react';
import { DEFAULT_FIELDS, FIELD_NAMES } from '@/core/defaults';
import type { FileSetsView } from '@/desk/defaults/file-sets';
import type { SeriesListView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { Disk } from '@/ui/disk/disk';
import { FIELD } from '@/ui/fields/field-row';
import { FilePick } from '@/ui/file-pick';
import { FileSets } from '@/ui/file-sets/file-sets';
import { Moment } from '@/ui/moment';
import { useNotices } from '@/ui/notices';
import { useSteps } from '@/ui/saving/use-steps';
import { UndoRedo } from '@/ui/undo-redo';

const LARGEST_IMPORT = 2_000_000;

/** Kinds of video, what their files are called, and what each gives its videos. */
export function SeriesList({ first, files }: { first: SeriesListView; files: FileSetsView }) {
  const { data } = useQuery({
    queryKey: ['series'],
    queryFn: () => ask<SeriesListView>('/api/series'),
    initialData: first,
  });
  const { undo, redo } = useSteps('series');
  return (
    <main className="mx-auto max-w-[1040px] px-4 py-5 sm:px-7">
      <div className="flex flex-wrap items-center gap-x-3.5 gap-y-1">
        <h1>Series</h1>
        <span className="ml-auto flex items-center gap-1">
          <UndoRedo can={data} undo={undo} redo={redo} />
          <ImportSeries />
        </span>
      </div>
      <p className="mt-1 mb-4 text-soft">
        Kinds of video. A series fills in everything but the title and two lines, and knows its files by their names.
      </p>
      <NewSeries />
      {data.series.length === 0 ? (
        <p className="enamel px-4 py-6 text-soft">
          There is no series yet. Name one above, such as “Plank diary”; then its template, tags, playlists and the rest
          are there with every file that fits its pattern.
        </p>
      ) : (
        <ul className="grid gap-3">
          {data.series.map((series) => (
            <SeriesCard key={series.id} series={series} />
          ))}
        </ul>
      )}
      <FileSets first={files} />
      <Disk />
    </main>
  );
}

function SeriesCard({ series }: { series: SeriesListView['series'][number] }) {
  const set = DEFAULT_FIELDS.filter((field) => series.sets[field] !== undefined).map((field) => FIELD_NAMES[field]);
  return (
    <li className="enamel grid gap-1 px-4 py-3">
      <div className="flex flex-wrap items-baseline gap-x-3.5">
        <Link href={`/series/${series.id}`} className="font-display font-semibold text-lg hover:underline">
          {series.name}
        </Link>
        <span className="text-[13px] text-soft">
          {series.videos} {series.videos === 1 ? 'video' : 'videos'}
          {series.lastUsedAt && (
            <>
              {' · last used '}
              <Moment at={series.lastUsedAt} />
            </>
          )}
        </span>
      </div>
      <p className="text-sm">
        {series.pattern ? (
          <>
            files like <span className="font-mono text-[13px]">{series.pattern}</span>
          </>
        ) : (
          <span className="text-soft">no pattern: chosen by hand</span>
        )}
      </p>
      <p className="text-[13px] text-soft">
        {set.length === 0 ? 'sets nothing yet' : `sets ${new Intl.ListFormat('en').format(set)}`}
      </p>
    </li>
  );
}

function NewSeries() {
  const [name, setName] = useState('');
  const router = useRouter();
  const { trouble } = useNotices();
  const make = async (event: FormEvent) => {
    event.preventDefault();
    try {
      const { id } = await ask<{ id: string }>('/api/series', { method: 'POST', json: { name } });
      router.push(`/series/${id}`);
    } catch (error) {
      trouble(error);
    }
  };
  return (
    <form onSubmit={make} className="mb-4 flex flex-wrap gap-2">
      <input
        value={name}
        onChange={(event) => setName(event.target.value)}
        aria-label="Name of a new series"
        placeholder="Name of a new series"
        className={`${FIELD} max-w-72`}
      />
      <Button type="submit" look="press">
        Make a series
      </Button>
    </form>
  );
}

function ImportSeries() {
  const input = useRef<HTMLInputElement>(null);
  const router = useRouter();
  const client = useQueryClient();
  const { say, trouble } = useNotices();
  const take = async (file: File | undefined) => {
    try {
      if (!file) return;
      if (file.size > LARGEST_IMPORT) throw new Error(`${file.name} is too large to be a series.`);
      const { id } = await ask<{ id: string }>('/api/series/import', { method: 'POST', json: await jsonIn(file) });
      await client.invalidateQueries({ queryKey: ['series'] });
      say(`The series of ${file.name} is here. Tick the channels that it goes to.`);
      router.push(`/series/${id}`);
    } catch (error) {
      trouble(error);
    }
  };
  return (
    <>
      <FilePick input={input} label="Series file" accept=".json,application/json" onPick={([file]) => take(file)} />
      <Button look="plain" onClick={() => input.current?.click()}>
        Import a series
      </Button>
    </>
  );
}

async function jsonIn(file: File): Promise<unknown> {
  try {
    return JSON.parse(await file.text());
  } catch {
    throw new Error(`${file.name} is no JSON file. Take one that was exported from a series.`);
  }
}

'use client';

import type { ReactNode } from 'react';
import { DECLARATION_FIELDS } from '@/core/declarations';
import type { DefaultField } from '@/core/defaults';
import { goesUpClosed } from '@/core/delivery';
import type { LayerView } from '@/desk/views/views';
import { LayerFields } from '@/ui/fields/layer-fields';
import { SavingState } from '@/ui/saving/saving-state';
import { UndoRedo } from '@/ui/undo-redo';
import { TemplatePreview } from './template-preview';
import { useLayer } from './use-layer';

interface LayerFormProps {
  first: LayerView;
  /** What stands beside the name. */
  actions?: ReactNode;
  /** What a layer of its kind has beside its defaults. */
  head?: (view: LayerView) => ReactNode;
  says: string;
}

interface Group {
  name: string;
  says: string;
  fields: DefaultField[];
}

function groupsOf({ layer, declares, hasGroups, rules }: LayerView): Group[] {
  return [
    {
      name: 'Words',
      says: 'around the title and the lines that are typed for each video',
      fields: ['titlePattern', 'template', 'links', 'tags'],
    },
    {
      name: 'Where it goes',
      says: 'and who may see it there',
      fields: [
        ...(layer === 'series' ? (['channels'] as const) : []),
        ...(hasGroups ? (['playlists'] as const) : []),
        'privacy',
        'release',
        'lateAtMost',
        'fullFirst',
        ...(layer === 'series' ? (['rhythm'] as const) : []),
        ...(layer === 'channel' ? (['hoursApart'] as const) : []),
      ],
    },
    {
      name: 'Declarations',
      says: 'each goes to the sites that take it',
      fields: DECLARATION_FIELDS.filter((field) => declares.includes(field)),
    },
    {
      name: 'Picture and file',
      says: '',
      fields: [
        'picture',
        'sendCaptions',
        'file',
        ...(layer === 'series' ? (['deleteMadeFiles', 'deleteFile', 'sendFromInbox'] as const) : []),
        ...(layer === 'channel' && rules.every(goesUpClosed) ? (['uploadEarly'] as const) : []),
      ],
    },
    {
      name: 'Chapters',
      says: 'markers of these colours are for viewers; all others stay notes to the team',
      fields: layer === 'series' ? (['chapterColours'] as const) : [],
    },
  ].filter(({ fields }) => fields.length > 0) as Group[];
}

/** One layer of defaults: everything that it can set, what it leaves open, and the words tried on the latest video. */
export function LayerForm({ first, actions, head, says }: LayerFormProps) {
  const { view, put, undo, redo } = useLayer(first);
  const { categories, channels, playlists, shelf } = view;
  return (
    <main className="mx-auto grid max-w-[1180px] grid-cols-[minmax(0,1fr)] gap-4 px-4 py-5 [overflow-wrap:anywhere] sm:px-7">
      <header>
        <div className="flex flex-wrap items-center gap-x-3.5 gap-y-1">
          <h1>{view.name}</h1>
          {view.siteName && <span className="text-soft">{view.siteName}</span>}
          <SavingState />
          <span className="ml-auto flex items-center gap-1">
            <UndoRedo can={view} undo={undo} redo={redo} />
            {actions}
          </span>
        </div>
        <p className="mt-1 text-soft">{says}</p>
      </header>
      {head?.(view)}
      {groupsOf(view).map((group) => (
        <section
          key={group.name}
          aria-label={group.name}
          className="enamel grid grid-cols-[minmax(0,1fr)] gap-3.5 px-4 py-3.5"
        >
          <h2>
            {group.name} <span className="ml-2 font-normal text-[13px] text-soft">{group.says}</span>
          </h2>
          <LayerFields
            fields={group.fields}
            at="layer-"
            own={view.set}
            beneath={view.beneath}
            stock={{ categories, channels, playlists, shelf }}
            keptAs={`layer ${view.owner}`}
            put={put}
          />
          {group.name === 'Words' && <TemplatePreview view={view} />}
        </section>
      ))}
    </main>
  );
}

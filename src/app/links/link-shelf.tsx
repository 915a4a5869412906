'use client';

import { useQuery } from '@tanstack/react-query';
import Link from 'next/link';
import { type FormEvent, useState } from 'react';
import { SHELF_NAME } from '@/core/words';
import type { LinksView, ShelfUse } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { DraftInput } from '@/ui/fields/draft-input';
import { FIELD } from '@/ui/fields/field-row';
import { useDraft } from '@/ui/saving/use-draft';
import { useSteps } from '@/ui/saving/use-steps';
import { useSure } from '@/ui/sure';
import { UndoRedo } from '@/ui/undo-redo';

type Steps = ReturnType<typeof useSteps>;
type ShelfRow = LinksView['links'][number];

const INPUT = `${FIELD} py-1.5 text-sm`;

/** Named links that texts use: changed here, they are changed in every text that is not sent yet. */
export function LinkShelf({ first }: { first: LinksView }) {
  const { data } = useQuery({ queryKey: ['links'], queryFn: () => ask<LinksView>('/api/links'), initialData: first });
  const steps = useSteps('shelf');
  return (
    <main className="mx-auto max-w-[1180px] px-4 py-5 sm:px-7">
      <div className="flex flex-wrap items-center gap-x-3.5 gap-y-1">
        <h1>Links</h1>
        <span className="ml-auto flex gap-1">
          <UndoRedo can={data} undo={steps.undo} redo={steps.redo} />
        </span>
      </div>
      <p className="mt-1 mb-4 text-soft">
        The link shelf. Templates use a link as <code className="font-mono text-[13px]">{'{{shelf.name}}'}</code>.
        Change it here, and every text that is not sent yet has it.
      </p>
      <NewLink steps={steps} />
      {data.missing.length > 0 && (
        <p className="mb-4 rounded-lg bg-snag-wash px-4 py-2.5">
          <b className="text-snag">▲ </b>Texts use {new Intl.ListFormat('en').format(data.missing)}, which the shelf
          does not have. They are not sent before it has.
        </p>
      )}
      {data.links.length === 0 ? (
        <p className="enamel px-4 py-6 text-soft">
          The shelf is empty. Put the links on it that your texts have again and again: the shop, the tools, the plans.
        </p>
      ) : (
        <ul className="enamel">
          {data.links.map((link) => (
            <ShelfLinkRow key={link.name} link={link} steps={steps} />
          ))}
        </ul>
      )}
    </main>
  );
}

function ShelfLinkRow({ link, steps }: { link: ShelfRow; steps: Steps }) {
  const { name, uses } = link;
  const at = `/api/links/${name}`;
  const label = useDraft(
    link.label,
    (text, on) => steps.save(at, { method: 'PATCH', json: { label: text, on: { label: on } } }),
    {
      key: `link ${link.name} label`,
    },
  );
  const url = useDraft(
    link.url,
    (text, on) => steps.save(at, { method: 'PATCH', json: { url: text, on: { url: on } } }),
    {
      key: `link ${link.name} url`,
    },
  );
  const sure = useSure();
  const remove = async () => {
    const inUse = uses.filter(({ kind }) => kind !== 'sent').length;
    const warned =
      inUse === 0 ||
      (await sure({
        title: `Remove the link “${name}”?`,
        follows: [
          `${inUse === 1 ? '1 text uses' : `${inUse} texts use`} it and cannot be sent without it. You can undo it here.`,
        ],
        yes: 'Remove it',
      }));
    if (warned) void steps.act(at, { method: 'DELETE' });
  };
  return (
    <li className="grid gap-x-4 gap-y-1.5 border-line border-b px-4 py-3 last:border-b-0 md:grid-cols-[150px_minmax(0,1fr)]">
      <span className="pt-1.5 font-mono text-[14px] [overflow-wrap:anywhere]">{name}</span>
      <div>
        <div className="grid gap-2 sm:grid-cols-[220px_minmax(0,1fr)_auto]">
          <DraftInput draft={label} aria-label={`Words of ${name}`} placeholder="its words" className={INPUT} />
          <DraftInput draft={url} aria-label={`Address of ${name}`} inputMode="url" className={INPUT} />
          <Button look="plain" onClick={remove} className="justify-self-start" aria-label={`Remove ${name}`}>
            Remove
          </Button>
        </div>
        <Uses uses={uses} />
      </div>
    </li>
  );
}

/** Where a link is used: first what can still change, then what went out, with the address that it has there. */
function Uses({ uses }: { uses: readonly ShelfUse[] }) {
  if (uses.length === 0) return <p className="mt-1 text-[13px] text-soft">used nowhere</p>;
  const sent = uses.filter((use) => use.kind === 'sent');
  const older = sent.filter((use) => use.older !== undefined).length;
  const line = (use: ShelfUse, index: number) => (
    <li key={index}>
      <Link href={addressOf(use)} className="textlink">
        {use.says}
      </Link>
      {use.kind === 'sent' && use.older && <span className="[overflow-wrap:anywhere]"> ▲ went out as {use.older}</span>}
    </li>
  );
  return (
    <div className="mt-1.5 text-[13px] text-soft">
      <ul className="flex flex-wrap gap-x-3 gap-y-0.5">
        <li>used by</li>
        {uses.filter(({ kind }) => kind !== 'sent').map(line)}
      </ul>
      {sent.length > 0 && (
        <details className="mt-0.5">
          <summary className="cursor-pointer">
            Sent in {sent.length} {sent.length === 1 ? 'video' : 'videos'}
            {older > 0 && <b className="font-semibold text-snag"> ▲ {older} with another address</b>}
          </summary>
          <ul className="mt-1 grid gap-0.5 pl-4">{sent.map(line)}</ul>
        </details>
      )}
    </div>
  );
}

function addressOf(use: ShelfUse): string {
  if (use.kind !== 'layer') return `/videos/${use.videoId}`;
  if (use.layer === 'series') return `/series/${use.owner}`;
  return use.layer === 'channel' ? `/channels/${use.owner}` : `/channels/site/${use.owner}`;
}

function NewLink({ steps }: { steps: Steps }) {
  const none = { name: '', label: '', url: '' };
  const [link, setLink] = useState(none);
  const put = (fields: Partial<typeof none>) => setLink({ ...link, ...fields });
  const add = async (event: FormEvent) => {
    event.preventDefault();
    if (await steps.act('/api/links', { method: 'POST', json: link })) setLink(none);
  };
  const finding = link.name !== '' && !SHELF_NAME.test(link.name);
  return (
    <form onSubmit={add} className="mb-4 grid items-center gap-2 sm:flex sm:flex-wrap">
      <input
        value={link.name}
        onChange={(event) => put({ name: event.target.value })}
        aria-label="Name of a new link"
        placeholder="steam-box"
        className={`${INPUT} font-mono sm:w-40`}
      />
      <input
        value={link.label}
        onChange={(event) => put({ label: event.target.value })}
        aria-label="Words of a new link"
        placeholder="Plans of the steam box"
        className={`${INPUT} sm:w-56`}
      />
      <input
        value={link.url}
        onChange={(event) => put({ url: event.target.value })}
        aria-label="Address of a new link"
        placeholder="https://"
        inputMode="url"
        className={`${INPUT} sm:w-72`}
      />
      <Button type="submit" look="press">
        Add link
      </Button>
      {finding && (
        <p className="w-full text-[13px] text-snag">▲ A name has small letters, digits and hyphens: steam-box</p>
      )}
    </form>
  );
}

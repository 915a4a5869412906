'use client';

import { useRouter } from 'next/navigation';
import { partsByPattern, patternFinding } from '@/core/defaults';
import type { LayerView } from '@/desk/views/views';
import { ask } from '@/ui/ask';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { DraftInput } from '@/ui/fields/draft-input';
import { FIELD, FieldRow } from '@/ui/fields/field-row';
import { LayerForm } from '@/ui/layer/layer-form';
import { useNotices } from '@/ui/notices';
import { useDraft } from '@/ui/saving/use-draft';
import { useSteps } from '@/ui/saving/use-steps';
import { useSure } from '@/ui/sure';

/** One series: its name, what its files are called, and its defaults. */
export function SeriesPage({ first }: { first: LayerView }) {
  return (
    <LayerForm
      first={first}
      says="What every video of this series gets. Videos that were sent already stay as they are."
      actions={<SeriesActions id={first.owner} name={first.name} />}
      head={(view) => <Recognising view={view} />}
    />
  );
}

function SeriesActions({ id, name }: { id: string; name: string }) {
  const router = useRouter();
  const { trouble } = useNotices();
  const { act } = useSteps(id);
  const sure = useSure();
  const duplicate = async () => {
    try {
      const copy = await ask<{ id: string }>(`/api/series/${id}`, { method: 'POST' });
      router.push(`/series/${copy.id}`);
    } catch (error) {
      trouble(error);
    }
  };
  const remove = async () => {
    const question = {
      title: `Delete the series “${name}”?`,
      follows: ['Its videos stay, without its defaults. You can undo it on Series.'],
      yes: 'Delete it',
    };
    if (!(await sure(question))) return;
    if (await act(`/api/series/${id}`, { method: 'DELETE' })) router.push('/series');
  };
  return (
    <span className="flex gap-3 pl-3">
      <Button look="plain" onClick={duplicate}>
        Duplicate
      </Button>
      <a
        href={`/api/series/${id}/file`}
        className="-mx-2 rounded-full px-2 py-2 font-semibold text-sm text-soft leading-none hover:bg-sunk hover:text-ink"
      >
        {BUTTONS.export}
      </a>
      <Button look="plain" onClick={remove}>
        {BUTTONS.delete}
      </Button>
    </span>
  );
}

/** Offers to put the videos in the series whose files fit and that are in none. */
function TakeFitting({ view }: { view: LayerView }) {
  const { say, trouble } = useNotices();
  const count = view.fitting.length;
  const videos = count === 1 ? '1 video' : `${count} videos`;
  const take = async () => {
    try {
      await ask('/api/many', {
        method: 'POST',
        json: { ids: view.fitting, act: { do: 'series', seriesId: view.owner } },
      });
      say(`${videos} come into the series. You can undo it on the Board.`);
    } catch (error) {
      trouble(error);
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-3 rounded-lg bg-held-wash px-3 py-2 text-sm">
      <p>
        {count === 1
          ? '1 video is in no series and its file fits.'
          : `${count} videos are in no series and their files fit.`}
      </p>
      <Button onClick={() => void take()}>{count === 1 ? 'Put it in' : `Put all ${count} in`}</Button>
    </div>
  );
}

/** The name, and the pattern with what it makes of files that came lately. */
function Recognising({ view }: { view: LayerView }) {
  const { save } = useSteps(view.owner);
  const at = `/api/series/${view.owner}`;
  const name = useDraft(
    view.name,
    (text, on) => save(at, { method: 'PATCH', json: { name: text, on: { name: on } } }),
    {
      key: `series ${view.owner} name`,
    },
  );
  const pattern = useDraft(view.pattern ?? '', async (text, on) => {
    // What cannot be used yet is being typed; it is said beside the field.
    if (patternFinding(text)) return 'refused';
    return save(at, { method: 'PATCH', json: { pattern: text, on: { pattern: on } } });
  });
  const finding = patternFinding(pattern.text);
  const files = view.files.map((file) => ({ file, parts: partsByPattern(file, pattern.text) }));
  const fitting = files.filter(({ parts }) => parts);
  return (
    <section aria-label="How it is recognised" className="enamel grid grid-cols-[minmax(0,1fr)] gap-3.5 px-4 py-3.5">
      <FieldRow id="series-name" label="Name">
        <DraftInput id="series-name" draft={name} className={`${FIELD} max-w-96`} />
      </FieldRow>
      {view.samePattern.length > 0 && (
        <p className="rounded-lg bg-snag-wash px-3 py-2 text-sm">
          <b className="text-snag">▲ Same pattern as {new Intl.ListFormat('en').format(view.samePattern)}.</b> A file
          that fits goes to one of them by chance. Change one of the patterns.
        </p>
      )}
      {view.fitting.length > 0 && <TakeFitting view={view} />}
      <FieldRow
        id="series-pattern"
        label="Its files"
        below={
          finding ? (
            <span className="text-snag">▲ {finding}</span>
          ) : (
            <span>
              the file’s name as it is, with <code>{'{episode}'}</code> and <code>{'{title}'}</code> where those stand,
              and <code>*</code> for anything
            </span>
          )
        }
      >
        <DraftInput
          id="series-pattern"
          draft={pattern}
          placeholder="plank-diary_{episode}_{title}"
          className={`${FIELD} font-mono text-[14px]`}
        />
        {pattern.text.trim() !== '' && !finding && files.length > 0 && (
          <div className="mt-2 text-[13px]">
            <p className="text-soft">
              It fits {fitting.length} of the {files.length} {files.length === 1 ? 'file' : 'files'} that came last
              {fitting.length > 0 && ':'}
            </p>
            <ul className="grid gap-0.5">
              {fitting.slice(0, 6).map(({ file, parts }) => (
                <li key={file} className="[overflow-wrap:anywhere]">
                  <span className="text-live">● </span>
                  <span className="font-mono">{file}</span> → “{parts?.title}”
                  {parts?.episode && `, episode ${parts.episode}`}
                </li>
              ))}
            </ul>
          </div>
        )}
      </FieldRow>
    </section>
  );
}

'use client';

import { autocompletion, type CompletionContext } from '@codemirror/autocomplete';
import { type Diagnostic, linter } from '@codemirror/lint';
import { Decoration, EditorView, MatchDecorator, placeholder, ViewPlugin, type ViewUpdate } from '@codemirror/view';
import CodeMirror, { type ReactCodeMirrorRef } from '@uiw/react-codemirror';
import { useMemo, useRef } from 'react';
import { TEMPLATE_NAMES } from '@/core/fitting';
import { cutTurn, namesIn, templateTrouble } from '@/core/words';
import type { SaveEnd } from '../saving/use-acts';
import { useDraft } from '../saving/use-draft';
import { DraftLeft } from './draft-input';

export interface TemplateFieldProps {
  id: string;
  label: string;
  value: string;
  save: (text: string, on: unknown) => Promise<SaveEnd>;
  /** What this layer itself has set, and what the browser keeps it under until it is saved. */
  own: string | undefined;
  keptAs: string;
  /** Names of links on the shelf. */
  shelf: readonly string[];
  /** One line, as a title's pattern has. */
  oneLine?: boolean;
  hint?: string;
}

const mark = Decoration.mark({ class: 'rounded bg-copper-wash text-copper' });
const marks = new MatchDecorator({ regexp: /\{\{[^{}]*\}\}/g, decoration: mark });
const blanks = ViewPlugin.fromClass(
  class {
    decorations;
    constructor(view: EditorView) {
      this.decorations = marks.createDeco(view);
    }
    update(update: ViewUpdate) {
      this.decorations = marks.updateDeco(update, this.decorations);
    }
  },
  { decorations: (plugin) => plugin.decorations },
);

const look = EditorView.theme({
  '&': { backgroundColor: 'var(--card)', fontSize: '14px' },
  '&.cm-focused': { outline: '2px solid var(--rim)', outlineOffset: '1px' },
  '.cm-content': { fontFamily: 'var(--font-mono)', caretColor: 'var(--ink)', padding: '8px 4px' },
  '.cm-cursor': { borderLeftColor: 'var(--ink)' },
  '.cm-placeholder': { color: 'var(--soft)' },
  '.cm-tooltip': { backgroundColor: 'var(--card)', color: 'var(--ink)', border: '1px solid var(--line)' },
  '.cm-tooltip-autocomplete ul li[aria-selected]': { backgroundColor: 'var(--copper-wash)', color: 'var(--ink)' },
  '.cm-completionDetail': { color: 'var(--soft)', fontStyle: 'normal' },
  '.cm-diagnostic': { fontFamily: 'var(--font-text)' },
});

/** Sections that a template may have inside of `links`. */
const INNER = new Set(['label', 'url', 'line', '.']);

/** What is wrong with a template, each at its place: what keeps it from being read, and names that there are not. */
function troubles(text: string, known: ReadonlySet<string>): Diagnostic[] {
  const trouble = templateTrouble(text);
  if (trouble) {
    const from = Math.min(trouble.at, Math.max(0, text.length - 1));
    return [{ from, to: Math.min(text.length, from + 2), severity: 'error', message: trouble.what }];
  }
  return namesIn(text)
    .filter((name) => !known.has(name) && !INNER.has(name) && cutTurn(name) === undefined)
    .map((name) => {
      const from = Math.max(0, text.indexOf(name, text.indexOf('{{')));
      const onShelf = /^(?:shelf|address)\.(.+)$/.exec(name)?.[1];
      const message = onShelf ? `The shelf has no link “${onShelf}”` : `Nothing is called “${name}”`;
      return { from, to: from + name.length, severity: 'warning', message };
    });
}

/** A template with the names to hand and its errors at their place; it saves itself as it is typed. */
export function TemplateField(props: TemplateFieldProps) {
  const { id, label, value, own, save, shelf, keptAs, oneLine = false, hint = '' } = props;
  const draft = useDraft(value, save, { key: keptAs, raw: own ?? null });
  const editor = useRef<ReactCodeMirrorRef>(null);
  const shelfNames = shelf.join(' ');
  const { extensions, known } = useMemo(() => {
    const links = shelfNames.split(' ').filter(Boolean);
    const all = [
      ...TEMPLATE_NAMES,
      ...links.map((name) => ({ name: `shelf.${name}`, says: 'a link of the shelf, as a line', section: false })),
      ...links.map((name) => ({ name: `address.${name}`, says: 'its address alone', section: false })),
    ];
    const names = new Set(all.map(({ name }) => name));
    const complete = (context: CompletionContext) => {
      const typed = context.matchBefore(/\{\{[#^]?[\w.-]*/);
      if (!typed) return null;
      const options = all.map(({ name, says, section }) => ({
        label: name,
        detail: says,
        apply: section ? `#${name}}}\n{{/${name}}}` : `${name}}}`,
      }));
      return { from: typed.from + (/\{\{[#^]?/.exec(typed.text)?.[0].length ?? 2), options, validFor: /^[\w.-]*$/ };
    };
    const extensions = [
      look,
      blanks,
      EditorView.lineWrapping,
      autocompletion({ override: [complete] }),
      linter((view) => troubles(view.state.doc.toString(), names), { delay: 300 }),
      EditorView.contentAttributes.of({ id, tabindex: '0', 'aria-label': label, 'aria-multiline': 'true' }),
      placeholder(hint),
    ];
    return { extensions, known: names };
  }, [id, label, hint, shelfNames]);
  const found = troubles(draft.text, known);
  const insert = (name: string, section: boolean | undefined) => {
    const view = editor.current?.view;
    if (!view) return;
    const text = section ? `{{#${name}}}\n{{/${name}}}` : `{{${name}}}`;
    view.dispatch(view.state.replaceSelection(text));
    view.focus();
  };
  return (
    <div>
      <CodeMirror
        ref={editor}
        value={draft.text}
        onChange={draft.change}
        onBlur={() => void draft.flush()}
        extensions={extensions}
        theme="none"
        basicSetup={{
          lineNumbers: false,
          foldGutter: false,
          highlightActiveLine: false,
          autocompletion: false,
          closeBrackets: false,
        }}
        minHeight={oneLine ? undefined : '150px'}
        maxHeight="320px"
        className="overflow-hidden rounded-lg border border-line"
      />
      <DraftLeft draft={draft} />
      {found.map(({ message, from }) => (
        <p key={`${from} ${message}`} role="status" className="mt-1 text-[13px] text-snag">
          ▲ {message}, in line {draft.text.slice(0, from).split('\n').length}
        </p>
      ))}
      <div className="mt-1.5 flex flex-wrap gap-1">
        {TEMPLATE_NAMES.filter(
          ({ name }) => !oneLine || !['links', 'chapters', 'hashtags', 'summary', 'takes-links'].includes(name),
        ).map(({ name, says, section }) => (
          <button
            key={name}
            type="button"
            data-tip={says}
            onClick={() => insert(name, section)}
            className="rounded bg-sunk px-1.5 py-0.5 font-mono text-[12px] text-ink hover:bg-copper-wash"
          >
            {section ? `#${name}` : name}
          </button>
        ))}
        {!oneLine &&
          shelf.map((name) => (
            <button
              key={name}
              type="button"
              data-tip="a link of the shelf, as a line"
              onClick={() => insert(`shelf.${name}`, false)}
              className="rounded border border-line px-1.5 py-0.5 font-mono text-[12px] text-ink hover:bg-copper-wash"
            >
              shelf.{name}
            </button>
          ))}
      </div>
    </div>
  );
}

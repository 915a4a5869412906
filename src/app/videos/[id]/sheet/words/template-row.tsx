'use client';

import { useState } from 'react';
import { namesIn, PLAIN_TEMPLATE, PLAIN_TITLE, templateTrouble } from '@/core/words';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { FieldRow } from '@/ui/fields/field-row';
import { TemplateField } from '@/ui/fields/lazy-template-field';
import { SheetDialog } from '@/ui/sheet-dialog';
import { DiffersOn, SheetMark } from '../sheet-mark';
import type { SheetHandle } from '../use-sheet';
import { ThereTabs } from './as-there';

/** What a template puts around the summary, in a line. */
function templateWords(template: string): string {
  if (templateTrouble(template)) return 'It cannot be read';
  if (template.trim() === PLAIN_TEMPLATE.trim()) return 'Summary, links and chapters only';
  const lines = template.split('\n').filter((line) => line.trim() !== '').length;
  const names = new Set(namesIn(template)).size;
  return `${lines} ${lines === 1 ? 'line' : 'lines'}, ${names} ${names === 1 ? 'placeholder' : 'placeholders'}`;
}

/** The template of the text and the pattern of the title: where they come from, and the editor for both. */
export function TemplateRow({ handle }: { handle: SheetHandle }) {
  const [open, setOpen] = useState(false);
  const { sheet, save } = handle;
  const { template, titlePattern } = sheet.values;
  const shelf = Object.keys(sheet.shelf);
  return (
    <FieldRow
      id="template"
      label="Template"
      mark={<SheetMark handle={handle} field="template" />}
      below={<DiffersOn handle={handle} field="template" />}
    >
      <div id="template" tabIndex={-1} className="flex flex-wrap items-baseline gap-x-3 pt-1.5">
        <span>{templateWords(template)}</span>
        {titlePattern.trim() !== PLAIN_TITLE && (
          <span className="text-[13px] text-soft">
            title: <span className="font-mono">{titlePattern}</span>
          </span>
        )}
        <Button look="plain" onClick={() => setOpen(true)}>
          {BUTTONS.editTemplate}
        </Button>
      </div>
      {open && (
        <SheetDialog open onClose={() => setOpen(false)} title="Template of this video" close={BUTTONS.close} wide>
          <div className="grid gap-3.5">
            <FieldRow id="titlePattern" label="Title" mark={<SheetMark handle={handle} field="titlePattern" />}>
              <TemplateField
                id="titlePattern"
                label="Title pattern"
                value={titlePattern}
                own={sheet.own.titlePattern}
                keptAs={`${sheet.id} titlePattern`}
                save={(text, on) => save({ titlePattern: text }, { titlePattern: on })}
                shelf={shelf}
                oneLine
              />
            </FieldRow>
            <FieldRow id="templateText" label="Text" mark={<SheetMark handle={handle} field="template" />}>
              <TemplateField
                id="templateText"
                label="Description template"
                value={template}
                own={sheet.own.template}
                keptAs={`${sheet.id} template`}
                save={(text, on) => save({ template: text }, { template: on })}
                shelf={shelf}
              />
            </FieldRow>
            <ThereTabs handle={handle} />
          </div>
        </SheetDialog>
      )}
    </FieldRow>
  );
}

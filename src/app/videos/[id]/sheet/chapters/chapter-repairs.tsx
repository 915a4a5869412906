'use client';

import { useState } from 'react';
import {
  allRepairs,
  type Chapter,
  type ChapterFinding,
  type ChapterRules,
  chapterLines,
  mendsBetween,
  type RepairOffer,
  repairsFor,
} from '@/core/chapters';
import type { Fraction } from '@/core/time';
import { Button } from '@/ui/button';
import { BUTTONS } from '@/ui/button-words';
import { SheetDialog } from '@/ui/sheet-dialog';
import { again, type MarkerPut, useTimeLine } from '../time-line/time-line-state';

interface RepairsProps {
  /** Those about one chapter, or about the list as a whole. */
  findings: ChapterFinding[];
  chapters: Chapter[];
  rules: ChapterRules;
  duration: Fraction | undefined;
}

/** What is wrong with a chapter, each with the repairs that answer it; a repair is looked at before it is made. */
export function Repairs({ findings, chapters, rules, duration }: RepairsProps) {
  const { handle, markers, from, change } = useTimeLine();
  const [looked, setLooked] = useState<RepairOffer>();
  const whole = findings.every((finding) => finding.index === undefined);
  const all = whole ? allRepairs(chapters, rules, duration) : undefined;
  const make = ({ after }: RepairOffer) => {
    const markerById = new Map(markers.map((marker) => [marker.id, marker]));
    const colour = handle.sheet.chapterChoice.colours[0] ?? '';
    const put = mendsBetween(chapters, after, from).map(({ id, time, name, kind }): MarkerPut => {
      const old = id === undefined ? undefined : markerById.get(id);
      const words = old ? again(old) : { note: '', colour, kind: 'chapter' as const };
      return { ...words, time, name, kind: kind ?? words.kind };
    });
    setLooked(undefined);
    void change({ put });
  };
  const offer = (each: RepairOffer) => (
    <button key={each.says} type="button" onClick={() => setLooked(each)} className="textlink block text-[13px]">
      {each.says}
    </button>
  );
  return (
    <>
      {findings.map((finding) => (
        <div key={finding.what}>
          <p className="text-[13px] text-snag">▲ {finding.what}</p>
          {repairsFor(finding, chapters, rules, duration).map(offer)}
        </div>
      ))}
      {all && offer(all)}
      {looked && (
        <SheetDialog open onClose={() => setLooked(undefined)} title={looked.says} close={BUTTONS.cancel} wide>
          <div className="grid gap-4 sm:grid-cols-2">
            <Lines name="Before" chapters={chapters} other={looked.after} duration={duration} />
            <Lines name="After" chapters={looked.after} other={chapters} duration={duration} />
          </div>
          <p className="mt-3 text-[13px] text-soft">
            What is no longer a chapter stays as a note to the team. Undo takes all of it back at once.
          </p>
          <Button look="press" className="mt-3" onClick={() => make(looked)}>
            {BUTTONS.apply}
          </Button>
        </SheetDialog>
      )}
    </>
  );
}

interface LinesProps {
  name: string;
  chapters: Chapter[];
  /** The other side: lines that are not there stand out. */
  other: Chapter[];
  duration: Fraction | undefined;
}

function Lines({ name, chapters, other, duration }: LinesProps) {
  const text = (list: Chapter[]) => chapterLines(list, duration).map(({ stamp, title }) => `${stamp} ${title}`);
  const otherLines = new Set(text(other));
  return (
    <section aria-label={name}>
      <h3 className="mb-1">{name}</h3>
      <ol className="max-h-[46vh] overflow-y-auto rounded-lg bg-sunk px-3 py-2 text-sm">
        {text(chapters).map((line) => (
          <li key={line} className={otherLines.has(line) ? '' : 'font-semibold'}>
            {otherLines.has(line) ? '' : name === 'Before' ? '− ' : '+ '}
            {line}
          </li>
        ))}
      </ol>
    </section>
  );
}

'use client';

import Link from 'next/link';
import { type FileHabit, settingsWords } from '@/core/renditions';
import { CHOOSE_FIELD, Choose } from '@/ui/choose';
import { useFileSets } from '@/ui/file-sets/use-file-sets';

const KEEP = 'keep';

/** How files are made ready for sites: as they are where that can be, or by a set. */
export function FileSettingsField({
  id,
  file,
  onChange,
}: {
  id: string;
  file: FileHabit;
  onChange: (file: FileHabit) => void;
}) {
  const { sets } = useFileSets();
  const chosen = file.way === 'set' ? sets.find((set) => set.id === file.set) : undefined;
  const gone = file.way === 'set' && sets.length > 0 && !chosen;
  return (
    <div className="grid gap-1">
      <div className="max-w-80">
        <Choose
          id={id}
          value={file.way === 'set' ? file.set : KEEP}
          options={[
            [KEEP, 'As it is, where the site takes it'],
            ...sets.map((set) => [set.id, set.name] as const),
            ...(file.way === 'set' && !chosen ? [[file.set, gone ? 'a set that is gone' : '…'] as const] : []),
          ]}
          onChange={(value) => onChange(value === KEEP ? { way: 'keep' } : { way: 'set', set: value })}
          className={`${CHOOSE_FIELD} w-full`}
        />
      </div>
      <p className="text-[13px] text-soft">
        {gone && 'This set was deleted: the file goes as it is. '}
        {chosen ? `${chosen.says ? `${chosen.says}. ` : ''}${settingsWords(chosen.settings)}. ` : ''}
        <Link href="/series#file-sets" className="textlink">
          Make or change sets
        </Link>
      </p>
    </div>
  );
}

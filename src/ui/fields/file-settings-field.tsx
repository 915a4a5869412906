import { useQuery } from '@tanstack/react-query';
import type { FileHabit, FileSet } from '@/core/renditions';
import { ask } from '@/ui/ask';
import { Choose } from '@/ui/choose';

/** How files are made ready for sites: as they are, or by a set. */
export function FileSettingsField({
  id,
  file,
  onChange,
}: {
  id: string;
  file: FileHabit;
  onChange: (file: FileHabit) => void;
}) {
  const { data: sets = [] } = useQuery({ queryKey: ['file sets'], queryFn: () => ask<FileSet[]>('/api/file-sets') });
  return (
    <Choose
      id={id}
      value=""
      options={[['', 'x'], ...sets.map((s) => [s.id, s.name] as const)]}
      onChange={() => onChange(file)}
    />
  );
}

import type { FileSettings } from '@/core/defaults';
import { Choose } from '@/ui/choose';

const HEIGHTS = [2160, 1440, 1080, 720];
/** Rates that people go by, in kilobits a second (common practice, no source). */
const RATES: [kilobits: number, says: string][] = [
  [2000, 'small and quick, 2 Mbit/s'],
  [18_000, 'good for 1080p, 18 Mbit/s'],
  [26_000, 'good for 1080p at 60 frames a second, 26 Mbit/s'],
  [60_000, 'good for 1440p at 60 frames a second, 60 Mbit/s'],
  [100_000, 'good for 2160p at 60 frames a second, 100 Mbit/s'],
];

/** How files are to be made ready for sites; the cut's own where nothing else is said. */
export function FileSettingsField({
  id,
  file,
  onChange,
}: {
  id: string;
  file: FileSettings;
  onChange: (file: FileSettings) => void;
}) {
  const number = (text: string) => (text === '' ? null : Number(text));
  const rates = new Map(RATES);
  if (file.kilobits !== null && !rates.has(file.kilobits)) rates.set(file.kilobits, `${file.kilobits / 1000} Mbit/s`);
  return (
    <div className="flex flex-wrap gap-2">
      <Choose
        id={id}
        value={String(file.tallest ?? '')}
        options={[
          ['', 'Original height'],
          ...HEIGHTS.map((height) => [String(height), `at most ${height} lines`] as const),
        ]}
        onChange={(height) => onChange({ ...file, tallest: number(height) })}
      />
      <Choose
        label="Rate of the picture"
        value={String(file.kilobits ?? '')}
        options={[
          ['', 'Original bit rate'],
          ...[...rates].map(([kilobits, says]) => [String(kilobits), says] as const),
        ]}
        onChange={(kilobits) => onChange({ ...file, kilobits: number(kilobits) })}
      />
    </div>
  );
}

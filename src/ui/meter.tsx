/** A bar with words below it that say the same. */
export function Meter({
  share,
  says,
  look = 'moving',
}: {
  share: number;
  says: string;
  look?: 'moving' | 'held' | 'snag';
}) {
  const colours = { moving: 'bg-moving', held: 'bg-held', snag: 'bg-snag' };
  const percent = Math.min(100, Math.max(0, share * 100));
  return (
    <div>
      <div
        role="progressbar"
        aria-label={says}
        aria-valuenow={Math.floor(percent)}
        aria-valuemin={0}
        aria-valuemax={100}
        className="h-[5px] overflow-hidden rounded-full bg-sunk"
      >
        <div className={`grows h-full rounded-full ${colours[look]}`} style={{ width: `${percent}%` }} />
      </div>
      <p className="mt-1 text-[13px] text-soft">{says}</p>
    </div>
  );
}

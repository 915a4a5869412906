/** The look of an item of a list. */
export const CHIP = 'inline-flex min-h-6 items-center gap-1 rounded-full bg-sunk pl-2.5 text-sm';

/** Takes an item off its list. */
export function ChipOff({ one, item, onClick }: { one: string; item: string; onClick: () => void }) {
  return (
    <button
      type="button"
      aria-label={`Remove the ${one} ${item}`}
      onClick={onClick}
      className="grid size-6 flex-none place-items-center rounded-full text-soft hover:text-snag"
    >
      ×
    </button>
  );
}

import { X } from 'lucide-react';

/** Takes one thing off a list. @param label what it takes off, for those who cannot see where it stands */
export function TakeOff({ label, onClick }: { label: string; onClick: () => void }) {
  return (
    <button type="button" aria-label={label} onClick={onClick} className="rounded p-1 text-soft hover:text-snag">
      <X size={15} />
    </button>
  );
}

'use client';

import { useUnsaved } from './fields/unsaved';

/** Whether everything that was changed here is kept. */
export function SavingState({ saving }: { saving: boolean }) {
  const unsaved = useUnsaved();
  return (
    <small role="status" className="text-[13px] text-soft">
      {saving ? 'saving …' : unsaved ? 'not saved yet' : 'all saved'}
    </small>
  );
}

'use client';

import { useUnsaved } from './unsaved';

/** Whether everything that was changed here is kept. */
export function SavingState() {
  const { drafts, underWay, waiting } = useUnsaved();
  if (waiting > 0) {
    return (
      <small role="status" className="text-[13px] text-snag">
        ▲ not saved yet; it is tried again until it is
      </small>
    );
  }
  return (
    <small role="status" className="text-[13px] text-soft">
      {underWay > 0 ? 'saving …' : drafts > 0 ? 'not saved yet' : 'all saved'}
    </small>
  );
}

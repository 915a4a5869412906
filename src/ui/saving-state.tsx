/** Whether everything that was changed here is kept. */
export function SavingState({ saving }: { saving: boolean }) {
  return (
    <small role="status" className="text-[13px] text-soft">
      {saving ? 'saving …' : 'all saved'}
    </small>
  );
}

/** What this process leaves for now, each by its id until its time is over. */
export function leftFor(milliseconds: number) {
  const until = new Map<string, number>();
  const now = (): string[] => {
    for (const [id, end] of until) if (end < Date.now()) until.delete(id);
    return [...until.keys()];
  };
  const leave = (id: string): void => {
    until.set(id, Date.now() + milliseconds);
  };
  return { leave, now };
}

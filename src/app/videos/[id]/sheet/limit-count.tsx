/** How much of a limit is used, in words; over it, by shape and colour too. */
export function LimitCount({ used, most, site }: { used: number; most: number; site: string }) {
  const over = used > most;
  return (
    <span className={over ? 'font-semibold text-snag' : ''}>
      {over ? '▲ ' : ''}
      {used} of {most} on {site}
    </span>
  );
}

/** How much of a limit is used, in words; over it, by shape and colour too. @param says what is counted, and where */
export function LimitCount({ used, most, says }: { used: number; most: number; says: string }) {
  const over = used > most;
  return (
    <span className={over ? 'font-semibold text-snag' : ''}>
      {over ? '▲ ' : ''}
      {used.toLocaleString('en')} of {most.toLocaleString('en')} {says}
    </span>
  );
}

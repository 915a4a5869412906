/** From this share of a limit on it is worth saying how much is used. */
const NEAR = 0.8;

/** How much of a limit is used, once it comes near; over it, by shape and colour too. @param says what is counted, and where */
export function LimitCount({ used, most, says }: { used: number; most: number; says: string }) {
  if (used < most * NEAR) return null;
  const over = used > most;
  return (
    <span className={over ? 'font-semibold text-snag' : ''}>
      {over ? '▲ ' : ''}
      {used.toLocaleString('en')} of {most.toLocaleString('en')} {says}
    </span>
  );
}

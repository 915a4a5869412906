/** How a transfer goes: `bytesPerSecond` over the last seconds, and the seconds left at that rate. */
export interface TransferPace {
  bytesPerSecond: number;
  secondsLeft: number | undefined;
}

interface Sample {
  at: number;
  bytes: number;
}

/** Follows the bytes of one transfer and tells its pace over a sliding span. Times are milliseconds of any one clock. */
export class PaceMeter {
  private samples: Sample[] = [];

  /** @param span how many milliseconds the pace looks back */
  constructor(private readonly span = 8000) {}

  /** Notes that `bytes` in all are over at the time `at`. A count that falls (a new attempt) starts afresh. */
  note(bytes: number, at: number): void {
    const last = this.samples.at(-1);
    if (last && bytes < last.bytes) this.samples = [];
    this.samples.push({ at, bytes });
    while (this.samples.length > 2 && (this.samples[1]?.at ?? at) < at - this.span) this.samples.shift();
  }

  /** The pace now, for a transfer of `total` bytes. */
  pace(total: number): TransferPace {
    const [first, last] = [this.samples[0], this.samples.at(-1)];
    if (!first || !last || last.at <= first.at) return { bytesPerSecond: 0, secondsLeft: undefined };
    const bytesPerSecond = ((last.bytes - first.bytes) * 1000) / (last.at - first.at);
    if (bytesPerSecond <= 0) return { bytesPerSecond: 0, secondsLeft: undefined };
    return { bytesPerSecond, secondsLeft: Math.ceil((total - last.bytes) / bytesPerSecond) };
  }
}

/** A rate as lines are sold: "18.4 Mbit/s". */
export function lineRate(bytesPerSecond: number): string {
  const megabits = (bytesPerSecond * 8) / 1e6;
  if (megabits < 1) return `${Math.round(megabits * 1000)} kbit/s`;
  return `${megabits < 100 ? megabits.toFixed(1) : Math.round(megabits)} Mbit/s`;
}

/** A span as people say it: "45 s", "3 min", "2 h 5 min". */
export function spanName(seconds: number): string {
  if (seconds < 60) return `${Math.max(1, Math.ceil(seconds))} s`;
  const minutes = Math.round(seconds / 60);
  if (minutes < 60) return `${minutes} min`;
  return minutes % 60 === 0 ? `${minutes / 60} h` : `${Math.floor(minutes / 60)} h ${minutes % 60} min`;
}

import { readFileSync } from 'node:fs';

/** Resident memory of a process in bytes, as Linux tells it; 0 where the process is gone. */
export function residentBytes(pid: number | undefined): number {
  try {
    const status = readFileSync(`/proc/${pid}/status`, 'utf8');
    return Number(/VmRSS:\s+(\d+)/.exec(status)?.[1] ?? 0) * 1024;
  } catch {
    return 0;
  }
}

/** Watches how far the memory of a process grows above what it was at the start. */
export function watchMemory(pid: number | undefined): () => number {
  const start = residentBytes(pid);
  let most = start;
  const timer = setInterval(() => {
    most = Math.max(most, residentBytes(pid));
  }, 50);
  return () => {
    clearInterval(timer);
    return most - start;
  };
}

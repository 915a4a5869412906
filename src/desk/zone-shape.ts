/** Whether a text names a zone of the engine's IANA data. */
export function isZone(zone: string | undefined): boolean {
  try {
    return zone !== undefined && new Intl.DateTimeFormat('en', { timeZone: zone }) !== undefined;
  } catch {
    return false;
  }
}

/** Sets something by the control interface of a stand-in. @param address of the stand-in */
export async function setByControl(address: string, what: 'faults' | 'allowance', value: unknown): Promise<void> {
  const init = { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(value) };
  const answer = await fetch(`${address}/control/${what}`, init);
  if (!answer.ok) throw new Error(await answer.text());
}

/** Sets how many requests of an account a stand-in takes in a span of so many seconds, and whether it tells. */
export const allowAtAddress = (address: string, requests: number, seconds: number, told = true) =>
  setByControl(address, 'allowance', [{ name: 'span', requests, seconds, told }]);

/** Lets accounts ask a stand-in so much that no test gets to the end of it. */
export const allowPlentyAt = (address: string) => allowAtAddress(address, 1_000_000, 3600);

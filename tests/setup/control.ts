/** Sets something by the control interface of a stand-in. @param address of the stand-in */
export async function setByControl(address: string, what: 'faults' | 'allowance', value: unknown): Promise<void> {
  const init = { method: 'PUT', headers: { 'content-type': 'application/json' }, body: JSON.stringify(value) };
  const answer = await fetch(`${address}/control/${what}`, init);
  if (!answer.ok) throw new Error(await answer.text());
}

/** Sets how many requests of an account a stand-in takes in a span of so many seconds, and whether it tells. */
export const allowAtAddress = (address: string, requests: number, seconds: number, told = true) =>
  setByControl(address, 'allowance', [{ name: 'span', requests, seconds, told }]);

/** A body that cannot be read as JSON. */
export class NoJson extends Error {
  override name = 'NoJson';
}

/** The JSON of a request's body. @throws NoJson */
export async function jsonBody(request: Request): Promise<unknown> {
  const text = await request.text();
  try {
    return JSON.parse(text);
  } catch {
    throw new NoJson('The request is no JSON.');
  }
}

/** The JSON in a text that came with a request's address. @throws NoJson */
export function jsonIn(text: string, what: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    throw new NoJson(`${what} is no JSON.`);
  }
}

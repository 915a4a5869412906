/** A body that cannot be read as JSON. */
export class NoJson extends Error {
  override name = 'NoJson';
}

/** A body that is larger than it may be. */
export class TooLarge extends Error {
  override name = 'TooLarge';
}

/** Records, layers and lists of some thousand markers have less. */
const MOST_JSON_BYTES = 8 * 1024 * 1024;
/** Deeper than anything that is sent here, and far from where a reader runs out of stack. */
const DEEPEST = 60;

/**
 * The bytes of a request's body. Reading ends where there are more than there may be, whatever the request says of its length.
 * @param most bytes
 * @throws TooLarge
 */
export async function bodyBytes(request: Request, most: number): Promise<Uint8Array> {
  const tooLarge = () => new TooLarge(`This is larger than ${Math.floor(most / 1024 ** 2)} MiB. Use a smaller one.`);
  if (Number(request.headers.get('content-length')) > most) throw tooLarge();
  const chunks: Uint8Array[] = [];
  let size = 0;
  // A body that is not read to its end is cancelled by the loop's own end.
  for await (const chunk of request.body ?? []) {
    size += chunk.length;
    if (size > most) throw tooLarge();
    chunks.push(chunk);
  }
  return Buffer.concat(chunks);
}

/** The JSON of a request's body. @throws NoJson, TooLarge */
export async function jsonBody(request: Request): Promise<unknown> {
  return jsonIn(Buffer.from(await bodyBytes(request, MOST_JSON_BYTES)).toString('utf8'), 'The request');
}

/** The JSON in a text. @throws NoJson where it is none, or lies deeper than anything that is meant here */
export function jsonIn(text: string, what: string): unknown {
  if (depthOf(text) > DEEPEST) throw new NoJson(`${what} is nested too deeply.`);
  try {
    return JSON.parse(text, withoutPrototypes);
  } catch {
    throw new NoJson(`${what} is no JSON.`);
  }
}

/** Names that would change what an object is, and not what it has. */
function withoutPrototypes(this: unknown, key: string, value: unknown): unknown {
  return key === '__proto__' || (key === 'constructor' && typeof value === 'object') ? undefined : value;
}

function depthOf(text: string): number {
  let [depth, deepest, inText] = [0, 0, false];
  for (let at = 0; at < text.length; at += 1) {
    const sign = text[at];
    if (inText) {
      if (sign === '\\') at += 1;
      else if (sign === '"') inText = false;
    } else if (sign === '"') inText = true;
    else if (sign === '{' || sign === '[') {
      depth += 1;
      deepest = Math.max(deepest, depth);
    } else if (sign === '}' || sign === ']') depth -= 1;
  }
  return deepest;
}

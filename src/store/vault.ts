import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { linkSync, mkdirSync, readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { array, object, string } from 'yup';
import { settings } from '@/store/settings';

const keysShape = array(
  object({
    id: string()
      .matches(/^[a-z0-9]{1,16}$/)
      .required(),
    key: string().length(44).required(),
  }).required(),
)
  .min(1)
  .required();

/** The keys by their ids, newest first: the first one seals, all of them unseal. */
type Keys = readonly { id: string; key: Buffer }[];

let cached: { version: string; keys: Keys } | undefined;

const keyFile = () => path.join(/* turbopackIgnore: true */ settings().home, 'vault.key');

/** Before keys had ids, the file held one key alone, and what it sealed carries no id. */
const FIRST = 'first';

function parsed(text: string): Keys {
  if (!text.startsWith('[')) return [{ id: FIRST, key: Buffer.from(text, 'base64') }];
  return keysShape.validateSync(JSON.parse(text)).map(({ id, key }) => ({ id, key: Buffer.from(key, 'base64') }));
}

const asText = (keys: Keys) => JSON.stringify(keys.map(({ id, key }) => ({ id, key: key.toString('base64') })));

/** Writes the file whole before it has its name, so that nobody ever reads half of it. */
function writeWhole(text: string, finish: (fresh: string, file: string) => void): void {
  const file = keyFile();
  mkdirSync(path.dirname(file), { recursive: true });
  const fresh = `${file}.${randomBytes(6).toString('hex')}`;
  writeFileSync(fresh, text, { mode: 0o600, flag: 'wx' });
  try {
    finish(fresh, file);
  } finally {
    rmSync(fresh, { force: true });
  }
}

function makeFirst(): void {
  writeWhole(asText([{ id: FIRST, key: randomBytes(32) }]), (fresh, file) => {
    try {
      // A link is made or not: of two processes that start at once, one makes it and both read the same key.
      linkSync(fresh, file);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
  });
}

/** The keys as they are now: read anew where another process has renewed them. */
function vaultKeys(): Keys {
  const version = () => {
    const { ino, mtimeMs } = statSync(keyFile());
    return `${keyFile()} ${ino} ${mtimeMs}`;
  };
  try {
    if (cached?.version === version()) return cached.keys;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error;
    makeFirst();
  }
  cached = { version: version(), keys: parsed(readFileSync(keyFile(), 'utf8')) };
  return cached.keys;
}

/** Encrypts a secret for keeping: AES-256-GCM with a fresh nonce, as the key's id, a dot, and base64 of nonce, tag and text. */
export function seal(secret: string): string {
  const [newest] = vaultKeys();
  if (!newest) throw new Error('The vault has no key');
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', newest.key, nonce);
  cipher.setAAD(Buffer.from(newest.id));
  const text = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  return `${newest.id}.${Buffer.concat([nonce, cipher.getAuthTag(), text]).toString('base64')}`;
}

/** The secret again. @throws where it was altered, or sealed with a key that is gone */
export function unseal(sealed: string): string {
  const [, id, body] = /^(?:([a-z0-9]+)\.)?([A-Za-z0-9+/=]+)$/.exec(sealed) ?? [];
  const found = vaultKeys().find((each) => each.id === (id ?? FIRST));
  if (!found || !body) throw new Error('This was sealed with a key that is not here any more');
  const bytes = Buffer.from(body, 'base64');
  const decipher = createDecipheriv('aes-256-gcm', found.key, bytes.subarray(0, 12));
  if (id !== undefined) decipher.setAAD(Buffer.from(id));
  decipher.setAuthTag(bytes.subarray(12, 28));
  return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
}

/** Whether something was sealed with the newest key. */
export function isSealedAnew(sealed: string): boolean {
  return sealed.startsWith(`${vaultKeys()[0]?.id}.`);
}

/**
 * Puts a new key before the others. The one before it stays, for what is sealed with it at this moment; older ones go, so
 * everything has to be sealed anew before this is done again.
 */
export function addVaultKey(): void {
  const [former] = vaultKeys();
  const fresh = { id: randomBytes(6).toString('hex'), key: randomBytes(32) };
  writeWhole(asText(former ? [fresh, former] : [fresh]), (written, file) => {
    renameSync(written, file);
  });
  cached = undefined;
}

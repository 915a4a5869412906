import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import { settings } from './settings';

let key: Buffer | undefined;

function vaultKey(): Buffer {
  if (key) return key;
  const file = path.join(/* turbopackIgnore: true */ settings().home, 'vault.key');
  if (!existsSync(file)) {
    mkdirSync(path.dirname(file), { recursive: true });
    try {
      // 'wx': of two processes that start at once, one writes and both read the same key.
      writeFileSync(file, randomBytes(32).toString('base64'), { mode: 0o600, flag: 'wx' });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'EEXIST') throw error;
    }
  }
  key = Buffer.from(readFileSync(file, 'utf8'), 'base64');
  return key;
}

/** Encrypts a secret for keeping: AES-256-GCM with a fresh nonce, as base64 of nonce, tag and text. */
export function seal(secret: string): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', vaultKey(), nonce);
  const text = Buffer.concat([cipher.update(secret, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), text]).toString('base64');
}

/** The secret again. @throws where it was sealed with another key or altered. */
export function unseal(sealed: string): string {
  const bytes = Buffer.from(sealed, 'base64');
  const decipher = createDecipheriv('aes-256-gcm', vaultKey(), bytes.subarray(0, 12));
  decipher.setAuthTag(bytes.subarray(12, 28));
  return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
}

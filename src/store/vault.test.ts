import { createCipheriv, randomBytes } from 'node:crypto';
import { mkdtempSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import os from 'node:os';
import path from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { takeHome } from '@/store/settings';
import { addVaultKey, isSealedAnew, seal, unseal } from '@/store/vault';

let home: string;
beforeEach(() => {
  home = mkdtempSync(path.join(os.tmpdir(), 'kettle-vault-'));
  takeHome(home);
});

describe('the vault', () => {
  it('gives back what it sealed, each time differently, under a key that its owner alone can read', () => {
    const [one, two] = [seal('a secret'), seal('a secret')];
    expect([unseal(one), unseal(two)]).toEqual(['a secret', 'a secret']);
    expect(one).not.toBe(two);
    expect(statSync(path.join(home, 'vault.key')).mode & 0o777).toBe(0o600);
    expect(readdirSync(home)).toEqual(['vault.key']);
  });

  it('refuses what was altered, and what claims to be sealed with another key', () => {
    const sealed = seal('a secret');
    const altered = sealed.replace(/.(?=.{8}$)/, (sign) => (sign === 'A' ? 'B' : 'A'));
    expect(() => unseal(altered)).toThrow();
    expect(() => unseal(sealed.replace(/^first/, 'other'))).toThrow('not here any more');
    const before = seal('again');
    addVaultKey();
    const fresh = seal('x').split('.')[0];
    expect(() => unseal(before.replace(/^first/, fresh ?? ''))).toThrow();
  });

  it('is renewed: what was sealed before opens still, and what is sealed now has the new key', () => {
    const before = seal('a secret');
    expect(isSealedAnew(before)).toBe(true);
    addVaultKey();
    expect(isSealedAnew(before)).toBe(false);
    expect(unseal(before)).toBe('a secret');
    const after = seal('a secret');
    expect(isSealedAnew(after)).toBe(true);
    addVaultKey();
    expect(unseal(after)).toBe('a secret');
    expect(() => unseal(before)).toThrow('not here any more');
  });

  it('opens what was sealed before keys had ids', () => {
    const key = randomBytes(32);
    writeFileSync(path.join(home, 'vault.key'), key.toString('base64'));
    const nonce = randomBytes(12);
    const cipher = createCipheriv('aes-256-gcm', key, nonce);
    const text = Buffer.concat([cipher.update('old secret'), cipher.final()]);
    expect(unseal(Buffer.concat([nonce, cipher.getAuthTag(), text]).toString('base64'))).toBe('old secret');
  });
});

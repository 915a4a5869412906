import { createHash, randomBytes } from 'node:crypto';
import path from 'node:path';
import { Records } from '../records';

/** Somebody who can sign in at a stand-in. */
export interface Person {
  id: string;
  name: string;
  email: string;
  channels: { id: string; name: string; about: string; mayEarn: boolean }[];
}

interface Grant {
  id: string;
  personId: string;
  clientId: string;
  scope: string;
  channelIds: string[];
  ended: boolean;
}

interface IssuedToken {
  id: string;
  grantId: string;
  kind: 'access' | 'refresh' | 'code';
  expiresAt: number;
  used: boolean;
  challenge?: string;
  redirectUri?: string;
}

const fingerprint = (token: string) => createHash('sha256').update(token).digest('hex');
const LIFE = { access: 10 * 60_000, refresh: 60 * 24 * 3_600_000, code: 60_000 };

/** What people have permitted, and the tokens that stand for it; tokens are kept as fingerprints only. */
export class Permissions {
  private readonly grants: Records<Grant>;
  private readonly tokens: Records<IssuedToken>;

  constructor(folder: string) {
    this.grants = new Records(path.join(folder, 'grants'));
    this.tokens = new Records(path.join(folder, 'tokens'));
  }

  /** Writes a permission down and gives a code for it. */
  permit(grant: Omit<Grant, 'id' | 'ended'>, challenge: string, redirectUri: string): string {
    const { id } = this.grants.put({ ...grant, id: randomBytes(12).toString('hex'), ended: false });
    return this.issue(id, 'code', { challenge, redirectUri });
  }

  private issue(grantId: string, kind: IssuedToken['kind'], more: Partial<IssuedToken> = {}): string {
    const token = randomBytes(32).toString('base64url');
    const expiresAt = Date.now() + LIFE[kind];
    this.tokens.put({ id: fingerprint(token), grantId, kind, expiresAt, used: false, ...more });
    return token;
  }

  private find(token: string, kind: IssuedToken['kind']): { token: IssuedToken; grant: Grant } | undefined {
    const found = this.tokens.get(fingerprint(token));
    const grant = found && this.grants.get(found.grantId);
    if (!found || !grant || found.kind !== kind || grant.ended || found.expiresAt < Date.now()) return undefined;
    return { token: found, grant };
  }

  /** The ids of the permissions that hold. */
  inForce(): string[] {
    return this.grants.all().flatMap(({ id, ended }) => (ended ? [] : [id]));
  }

  /** The permission behind an access token. */
  grantOf(accessToken: string): Grant | undefined {
    return this.find(accessToken, 'access')?.grant;
  }

  /** Tokens for a code or a refresh token; one that comes a second time ends the permission (RFC 6749, 4.1.2 and 10.4). */
  redeem(kind: 'code' | 'refresh', token: string, fits: (issued: IssuedToken) => boolean) {
    const found = this.find(token, kind);
    if (!found || !fits(found.token)) return undefined;
    if (found.token.used) {
      this.end(found.grant.id);
      return undefined;
    }
    this.tokens.put({ ...found.token, used: true });
    return {
      access_token: this.issue(found.grant.id, 'access'),
      refresh_token: this.issue(found.grant.id, 'refresh'),
      token_type: 'Bearer',
      expires_in: LIFE.access / 1000,
      scope: found.grant.scope,
    };
  }

  /** Ends the permission behind a token of either kind (RFC 7009, section 2.1). */
  revoke(token: string): void {
    const found = this.tokens.get(fingerprint(token));
    if (found) this.end(found.grantId);
  }

  private end(grantId: string): void {
    const grant = this.grants.get(grantId);
    if (grant) this.grants.put({ ...grant, ended: true });
    for (const token of this.tokens.all()) if (token.grantId === grantId) this.tokens.delete(token.id);
  }

  /** Takes back what a person (or everybody) has permitted. */
  takeBack(personId?: string): void {
    for (const grant of this.grants.all()) if (!personId || grant.personId === personId) this.end(grant.id);
  }

  /** Lets every access token run out now. */
  expireAccess(): void {
    for (const token of this.tokens.all()) if (token.kind === 'access') this.tokens.put({ ...token, expiresAt: 0 });
  }
}

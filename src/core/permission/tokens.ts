/** What a site gave us to speak for an account (RFC 6749, section 5.1). */
export interface Tokens {
  access: string;
  refresh: string;
  /** UTC milliseconds after which the access token is no longer good. */
  expiresAt: number;
}

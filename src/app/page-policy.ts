/**
 * What a page may load and do (Content Security Policy Level 3): scripts that carry this answer's number and what those load,
 * all else from this machine alone; no page may show it in a frame.
 * @param nonce at least 128 bits, in base64, of this answer alone
 */
export function pagePolicy(nonce: string): string {
  return [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'`,
    // Positions on the ruler and the editor's rules are styles that are made while the page runs.
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "media-src 'self' blob:",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'none'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join('; ');
}

import { describe, expect, it } from 'vitest';
import { pagePolicy } from './page-policy';

/** The directives of a policy, by name (Content Security Policy Level 3, section 2.2.1). */
const directives = (policy: string) =>
  new Map(policy.split(';').map((each) => [each.trim().split(' ')[0], each.trim().split(' ').slice(1)]));

describe('what a page may do', () => {
  it('is to run scripts that carry its own number, and none that stand in the page', () => {
    const scripts = directives(pagePolicy('abc')).get('script-src');
    expect(scripts).toContain("'nonce-abc'");
    expect(scripts).not.toContain("'unsafe-inline'");
    expect(scripts).not.toContain("'unsafe-eval'");
  });

  it('is to load from nowhere else, and to stand in nobody’s frame', () => {
    const all = directives(pagePolicy('abc'));
    expect(all.get('default-src')).toEqual(["'self'"]);
    expect(all.get('frame-ancestors')).toEqual(["'none'"]);
    expect(all.get('object-src')).toEqual(["'none'"]);
    expect(all.get('base-uri')).toEqual(["'none'"]);
  });
});

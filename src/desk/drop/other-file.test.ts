import { describe, expect, it } from 'vitest';
import { isOtherFile } from './other-file';

describe('whether a site has another file than the one in use', () => {
  it('goes by what both were made from; of what nobody knows, and of what is not ready, nothing is said', () => {
    const ready = { state: 'ready', digest: 'a' } as const;
    expect([isOtherFile(ready, 'b'), isOtherFile(ready, 'a'), isOtherFile(ready, undefined)]).toEqual([
      true,
      false,
      false,
    ]);
    expect([isOtherFile(undefined, 'b'), isOtherFile({ state: 'reading', digest: 'a' }, 'b')]).toEqual([false, false]);
  });
});

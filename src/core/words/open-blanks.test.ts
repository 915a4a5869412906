import { describe, expect, it } from 'vitest';
import { openBlanksIn } from './open-blanks';

describe('what looks like a blank', () => {
  it.each([
    ['Gear: {{leftover}}', '{{leftover}}'],
    ['{{ two words }}', '{{ two words }}'],
    ['{{{raw}}}', '{{{raw}}}'],
    ['{{never closed', '{{never closed'],
    ['closed only}} here', '}}'],
    ['Hello {name}, hello', '{name}'],
    [`Hello $\{name}`, `$\{name}`],
    ['See [[link two]]', '[[link two]]'],
    ['See <<summary>>', '<<summary>>'],
    ['%TITLE% is out', '%TITLE%'],
    ['Get it here: [insert link]', '[insert link]'],
    ['[Your channel] presents', '[Your channel]'],
  ])('%s', (text, blank) => expect(openBlanksIn(text)).toContain(blank));

  it.each([
    'A set { 1, 2 } of numbers',
    'Boats [HD] and planks [part 2]',
    'Down 20 % in price, up 30%',
    'a << b, a >> b',
    'x[[0]',
    'https://example.org/a%20b%2Fc',
    'It is {}',
    '',
  ])('not: %s', (text) => expect(openBlanksIn(text)).toEqual([]));

  it('names each once', () => expect(openBlanksIn('{{a}} {{b}} {{a}}')).toEqual(['{{a}}', '{{b}}']));
});

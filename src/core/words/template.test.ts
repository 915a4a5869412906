import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blanksIn, partsThatMayGo, renderTemplate, TemplateError, withCutNames } from './template';

const names = (template: string, view = {}, mayBeEmpty: string[] = []) =>
  blanksIn(template, view, mayBeEmpty).map(({ name }) => name);

describe('a template', () => {
  it('comes out as text, nothing escaped', () => {
    expect(renderTemplate('{{a}} {{{a}}} {{&a}}', { a: '<b> & "q"' })).toBe('<b> & "q" <b> & "q" <b> & "q"');
  });

  it('never runs what its values say', () => {
    const brackets = fc.constantFrom('{{b}}', '{{#b}}', '{{/b}}', '{{=<% %>=}}', 'plain', '{{{b}}}');
    fc.assert(
      fc.property(fc.array(brackets), (parts) => {
        const a = parts.join('');
        expect(renderTemplate('{{a}}', { a, b: 'RUN' })).toBe(a);
      }),
    );
  });

  it('knows no name but those that it is given', () => {
    for (const name of ['constructor', 'toString', '__proto__', 'hasOwnProperty']) {
      for (const template of [`a{{${name}}}`, `{{#a}}{{#${name}}}b{{/${name}}}{{/a}}`, `{{shelf.${name}}}`]) {
        expect(() => renderTemplate(template, { a: true })).toThrow(TemplateError);
      }
    }
  });

  it('says where it cannot be read', () => {
    for (const bad of ['{{#links}} open', 'text {{/links}}', '{{#a}}{{/b}}', '{{name']) {
      expect(() => renderTemplate(bad, {})).toThrow(TemplateError);
    }
    try {
      renderTemplate('0123{{/links}}', {});
    } catch (error) {
      expect((error as TemplateError).at).toBe(4);
      expect((error as TemplateError).message).not.toMatch(/\d/);
    }
  });
});

describe('blanks that are left open', () => {
  it('are names for which there is nothing, at their places', () => {
    expect(blanksIn('A {{one}} {{two}}', { one: 'x' })).toEqual([{ name: 'two', at: 10 }]);
    expect(names('{{one}} {{two}}', { one: '' })).toEqual(['one', 'two']);
    expect(names('{{chapters}}', {}, ['chapters'])).toEqual([]);
  });

  it('are none inside sections that vanish', () => {
    expect(names('{{#links}}{{label}}{{/links}}', { links: [] })).toEqual([]);
    expect(names('{{#go}}{{a}}{{/go}}', { go: false })).toEqual([]);
    expect(names('{{^links}}{{none}}{{/links}}', { links: [] })).toEqual(['none']);
    expect(names('{{^links}}{{none}}{{/links}}', { links: ['x'] })).toEqual([]);
  });

  it('are looked for in each turn of a section, from the inside out', () => {
    const view = { links: [{ label: 'A' }, {}], channel: 'Quay' };
    expect(names('{{#links}}{{label}} {{channel}}{{/links}}', view)).toEqual(['label']);
    expect(names('{{shelf.box}} {{shelf.saw}}', { shelf: { box: 'https://b.example' } })).toEqual(['shelf.saw']);
    expect(names('{{#links}}{{.}}{{/links}}', { links: ['x'] })).toEqual([]);
  });
});

describe('parts that may go', () => {
  it('are numbered sections in the order of their numbers, each once, however deep', () => {
    const template =
      '{{#cut-second}}{{#cut-10}}x{{/cut-10}}{{/cut-second}}{{#cut-first}}y{{/cut-first}}{{#cut-second}}z{{/cut-second}}';
    expect(partsThatMayGo(template)).toEqual([1, 2, 10]);
    const old = '{{#go.2}}{{#go.10}}x{{/go.10}}{{/go.2}}{{#go.1}}y{{/go.1}}{{# go.2 }}z{{/ go.2 }}';
    expect(partsThatMayGo(withCutNames(old))).toEqual([1, 2, 10]);
    expect(withCutNames('go.1 {{go.1}} {{#go.x}}')).toBe('go.1 {{go.1}} {{#go.x}}');
    expect(
      partsThatMayGo('{{cut-first}} {{^cut-second}}{{/cut-second}} {{#cut-x}}{{/cut-x}} {{#cut-1}}{{/cut-1}}'),
    ).toEqual([]);
  });
});

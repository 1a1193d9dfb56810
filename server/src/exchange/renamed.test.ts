import { describe, expect, it } from 'vitest';
import { documentOf } from '../testing/start.js';
import { renamed } from './renamed.js';

describe('a text that came in under another name', () => {
  const names = new Map([
    ['welcome', 'welcome-2'],
    ['desk', 'desk-2'],
  ]);
  it('includes and signs with what came in with it', () => {
    const text = documentOf(
      '---\nvocabula: 1\nkind: message\ntitle: A\ncall: a\nsubject: S\nsignature: desk\ntranslation_of: welcome\n---\n{{> welcome}}\n',
    );
    const made = renamed(text, names, new Map(), true);
    expect(made.attrs.front).toMatchObject({ signature: 'desk-2', translation_of: 'welcome-2', title: 'A' });
    expect(made.attrs.front).not.toHaveProperty('call');
    expect(JSON.stringify(made.content)).toContain('"name":"welcome-2"');
    expect(made.attrs).not.toHaveProperty('steps');
  });
  it('has the steps of a series lead to the templates that came in with it', () => {
    const series = documentOf(
      '---\nvocabula: 1\nkind: series\ntitle: S\nsteps:\n  - { text: welcome }\n  - { text: other, wait: 2 days }\n---\n',
    );
    expect(renamed(series, names, new Map(), false).attrs.steps).toEqual([
      { text: 'welcome-2' },
      { text: 'other', days: 2 },
    ]);
  });
});

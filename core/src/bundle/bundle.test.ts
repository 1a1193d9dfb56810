import { describe, expect, it } from 'vitest';
import { PLAIN_HOUSE } from '../house/house.js';
import { render } from '../render/render.js';
import { documentOf } from '../testing/build.js';
import { compileBundle, signatureFor, type Bundle } from './bundle.js';

const block = (body: string, kind = 'block') => documentOf({ body, front: `kind: ${kind}\ntitle: T` });
const text = { name: 'main', document: documentOf({ body: 'Dear Ann,\n\n{{> hours}}' }) };
const bundle: Bundle = {
  text,
  texts: [
    text,
    { name: 'hours', document: block('Open at nine.') },
    { name: 'mine', document: block('Maeve', 'signature') },
    { name: 'unused', document: block('Never') },
  ],
  house: PLAIN_HOUSE,
};
const textOf = (given: Bundle): string => render(compileBundle(given), { today: '2026-11-27' }).text;

describe('a bundle', () => {
  it('is a text with what it includes, and the sender’s signature', () => {
    expect(textOf(bundle)).toBe('Dear Ann,\n\nOpen at nine.\n');
    expect(textOf({ ...bundle, signature: 'mine' })).toBe('Dear Ann,\n\nOpen at nine.\n\nMaeve\n');
  });
  it('that lacks something says what', () => {
    expect(compileBundle({ ...bundle, texts: [] }).missing).toEqual(['hours']);
    expect(compileBundle({ ...bundle, signature: 'gone' }).findings.map(({ code }) => code)).toEqual(['unknown-block']);
  });
  it('has the signature that the sender uses for its purpose', () => {
    const sender = { signature: 'long', reply_signature: 'short' };
    expect([signatureFor('new', sender), signatureFor(undefined, sender), signatureFor('reply', sender)]).toEqual([
      'long',
      'long',
      'short',
    ]);
    expect(signatureFor('reply', { signature: 'long', reply_signature: '' })).toBeUndefined();
  });
});

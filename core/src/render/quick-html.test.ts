/** The quick ways through a message and the thorough one give the same: what is spared is only work. */
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { answers, documents } from '../testing/arbitrary.js';
import { render, renderHtml } from './render.js';

const today = '2026-11-27';

it('HTML alone, everything, and everything with its trace are the same', () => {
  fc.assert(
    fc.property(documents, answers, (document, given) => {
      const program = compile({ name: 'x', document }, { library: { get: () => undefined } });
      const input = { answers: given, today };
      const message = render(program, input);
      expect(renderHtml(program, input)).toBe(message.html);
      const traced = render(program, input, { trace: true });
      expect([traced.html, traced.text, traced.subject]).toEqual([message.html, message.text, message.subject]);
    }),
    { numRuns: 300 },
  );
});

it('values that are offered read as values that were answered', () => {
  fc.assert(
    fc.property(documents, answers, (document, given) => {
      const program = compile({ name: 'x', document }, { library: { get: () => undefined } });
      const answered = render(program, { answers: given, today });
      // What fits no variable is a fault where it was answered, and is passed over where it was offered.
      if (answered.findings.some(({ code }) => code === 'bad-value')) return;
      const offered = Object.fromEntries(
        Object.entries(given).map(([key, value]) => [key, { value, source: 'memory' as const }]),
      );
      const { text, html } = render(program, { offered, today });
      expect([text, html]).toEqual([answered.text, answered.html]);
    }),
    { numRuns: 300 },
  );
});

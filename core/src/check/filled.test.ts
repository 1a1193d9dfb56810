import { describe, expect, it } from 'vitest';
import { documentOf, program, type Source } from '../testing/build.js';
import { checkMessage } from './index.js';

const TODAY = '2026-11-24';
const VARIABLES = [
  'tea: { type: yes-no }',
  'coffee: { type: yes-no }',
  'name: { type: text }',
  'day: { type: date }',
  'notes: { type: paragraphs }',
].join('\n');
function found(
  body: string,
  answers: Record<string, unknown>,
  front = 'kind: message\nsubject: S\nlocale: en-IE',
): string[] {
  const text: Source = { body, variables: VARIABLES, front };
  const compiled = program(text);
  const input = { answers, today: TODAY };
  return checkMessage({ name: 'main', document: documentOf(text) }, compiled, input).map(({ code }) => code);
}

describe('the checks of what came of it', () => {
  it.each<[code: string, body: string, fault: Record<string, unknown>, nearMiss: Record<string, unknown>]>([
    ['past-date', 'We expect you on {{day}}.', { day: '2026-11-23' }, { day: '2026-11-24' }],
    ['a-or-an', 'It is a {{name}}.', { name: 'orchid' }, { name: 'rose' }],
    ['a-or-an', 'It is an {{name}}.', { name: 'union' }, { name: 'hour' }],
    [
      'broken-series',
      'Bring {{#tea}}tea{{/tea}}, {{#coffee}}coffee{{/coffee}}, and cake.',
      {},
      { tea: true, coffee: true },
    ],
    ['broken-series', 'We have {{#tea}}tea{{/tea}}, and cake.', {}, { tea: true }],
    ['broken-series', '{{#tea}}Tea{{/tea}}, then cake.', {}, { tea: true }],
    ['broken-series', 'Bring cake and {{#tea}}tea{{/tea}}.', {}, { tea: true }],
    ['broken-series', 'Bring cake, {{name}}.', {}, { name: 'Ann' }],
    ['sentence-start', '{{#tea}}For tea, {{/tea}}come at noon.', {}, { tea: true }],
    ['sentence-start', '{{name}} come at noon.', {}, { name: 'Ann,' }],
    ['large-message', '{{notes}}', { notes: 'ä '.repeat(48_000) }, { notes: 'a '.repeat(40_000) }],
  ])('%s in %j', (code, body, fault, nearMiss) => {
    expect(found(body, fault)).toContain(code);
    expect(found(body, nearMiss)).toEqual([]);
  });

  it.each<[body: string, answers: Record<string, unknown>]>([
    ['Your group is welcome{{#tea}}, where tea waits{{/tea}}, and we are glad.', {}],
    ['Your group is welcome{{#tea}}, with tea{{/tea}}.', {}],
    ['Thank you for your letter of {{day}}.', { day: '2026-10-01' }],
    ['We were glad to see you on {{day}}.', { day: '2026-10-01' }],
    ['In {{day.month}} we rest.', { day: '2026-10-01' }],
    ['and so on, written like this, , by hand', {}],
    ['{{#tea}}Tea is served. {{/tea}}Come at noon.', {}],
  ])('says nothing about %j', (body, answers) => {
    expect(found(body, answers)).toEqual([]);
  });

  it('names the place: the piece in the template’s own text', () => {
    const text: Source = { body: 'It is a {{name}}.', variables: VARIABLES };
    const document = documentOf(text);
    const [finding] = checkMessage({ name: 'main', document }, program(text), {
      answers: { name: 'orchid' },
      today: TODAY,
    });
    expect(finding?.place.path).toEqual([document.content.length - 1, 0, 0]);
  });
});

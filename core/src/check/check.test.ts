import { describe, expect, it } from 'vitest';
import { documentOf, type Source } from '../testing/build.js';
import { check } from './index.js';

const codes = (text: Source): string[] =>
  check({ name: 'main', document: documentOf(text) }, { library: { get: () => undefined } }).map(
    (finding) => finding.code,
  );
const plain = (body: string, variables?: string): string[] =>
  codes({ body, front: 'kind: message\nsubject: S\nlocale: en-IE', ...(variables ? { variables } : {}) });

describe('planted faults are found and near misses left alone', () => {
  it.each([
    ['Dear [NAME], hello', 'leftover-marker', 'Dear friend [1], the NATO desk'],
    ['It is the the gate', 'doubled-word', 'He had had tea'],
    ['a  b', 'doubled-space', 'a b'],
    ['Please find attached the plan.', 'attachment-missing', 'The geese are attached to the pond.'],
    ['On Sunday 14 June 2027 we open.', 'weekday-mismatch', 'On Monday 14 June 2027 we open.'],
    ['![](assets/map.png)', 'missing-alt', '![Map](assets/map.png)'],
  ])('%s', (fault, code, nearMiss) => {
    expect(plain(fault)).toContain(code);
    expect(plain(nearMiss)).not.toContain(code);
  });

  it('passages that can never or always be kept, and variables nobody reads', () => {
    expect(plain('{{#x}}a{{^x}}b{{/x}}{{/x}}', 'x: { type: yes-no }')).toContain('never-kept');
    expect(plain('{{#x}}\n{{#x}}\na\n{{/x}}\n{{/x}}', 'x: { type: yes-no }')).toContain('always-kept');
    expect(plain('a', 'x: { type: text }')).toEqual(['unused-variable']);
    expect(plain('{{x}}', 'x: { type: text }')).toEqual([]);
  });
});

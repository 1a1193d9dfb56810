import { expect, it } from 'vitest';
import { Frame } from '../render/frame.js';
import { program } from '../testing/build.js';

it('a program stays as it was compiled: messages of two days, made in turns, do not see each other', () => {
  const compiled = program({
    body: '{{when}} {{named}}',
    variables: 'when: { type: date, value: "today()" }\nnamed: { type: yes-no, value: "filled(when)" }',
  });
  const [when, named] = compiled.slots;
  if (!when || !named) throw new Error('no slots');
  const first = new Frame(compiled, { today: '2026-11-27' }, []);
  const second = new Frame(compiled, { today: '2027-01-02' }, []);
  expect([first.settle(when).value, second.settle(when).value]).toEqual(['2026-11-27', '2027-01-02']);
  expect([first.settle(named).value, second.settle(named).value]).toEqual([true, true]);
});

it('a program names the texts that are wanted and not there', () => {
  const compiled = program({
    body: '{{> opening-hours}}\n\n{{> here}}',
    front: 'kind: message\nsubject: S\nsignature: long-one',
  });
  expect(compiled.missing).toEqual(['opening-hours', 'here', 'long-one']);
  expect(program({ body: '{{> here}}' }, { here: { body: 'Words' } }).missing).toEqual([]);
});

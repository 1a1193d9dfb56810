// @vitest-environment happy-dom
import { expect, it } from 'vitest';
import { bodyOf, open, type } from '../../testing/open';
import { writeBelow } from './below';

it.each([
  ['| a | b |\n| --- | --- |\n| 1 | 2 |', '| a | b |\n| --- | --- |\n| 1 | 2 |\n\nMore'],
  ['> Text', '> Text\n\nMore'],
  ['Text', 'TextMore'],
])('below %j one writes on', (body, written) => {
  const editor = open(body);
  writeBelow(editor);
  type(editor, 'More');
  expect(bodyOf(editor)).toBe(written);
});

// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { replaceChanged } from './replaceChanged';

const line = (number: number, words: string): string => `<p data-p="${number}" data-l="letter:${number}">${words}</p>`;
const marked = (content: ParentNode): void => {
  for (const each of content.querySelectorAll<HTMLElement>('[data-l]')) each.tabIndex = -1;
};

describe('a page that is replaced in place', () => {
  it('keeps the focus on the line that had it, though its words became others', () => {
    replaceChanged(document.body, line(1, 'Dear') + line(2, 'It was good'), marked);
    (document.body.children[1] as HTMLElement).focus();
    replaceChanged(document.body, line(1, 'Dear') + line(2, 'It was very good'), marked);
    expect(document.activeElement?.textContent).toBe('It was very good');
  });

  it('keeps the focus on the summary of what is left out', () => {
    const left = (words: string): string => `<details data-p="1.1"><summary tabindex="-1">${words}</summary></details>`;
    replaceChanged(document.body, left('Rain'), marked);
    document.querySelector('summary')?.focus();
    replaceChanged(document.body, left('Rain and snow'), marked);
    expect(document.activeElement).toBe(document.querySelector('summary'));
    expect(document.body.textContent).toBe('Rain and snow');
  });

  it('leaves blocks that stay the same where they are, marked as they are', () => {
    replaceChanged(document.body, line(1, 'Dear') + line(2, 'Good') + line(3, 'Yours'), marked);
    const [first, , third] = document.body.children;
    replaceChanged(document.body, line(1, 'Dear') + line(2, 'Better') + line(3, 'Yours'), marked);
    expect(document.body.children[0]).toBe(first);
    expect(document.body.children[2]).toBe(third);
    expect(document.body.textContent).toBe('DearBetterYours');
  });

  it('takes the focus from nobody else', () => {
    document.body.innerHTML = '';
    replaceChanged(document.body, line(1, 'Dear'), marked);
    replaceChanged(document.body, line(1, 'Hello'), marked);
    expect(document.activeElement).toBe(document.body);
  });
});

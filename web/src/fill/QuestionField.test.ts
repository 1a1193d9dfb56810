// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import type { Question, Variable } from '@vocabula/core';
import { describe, expect, it } from 'vitest';
import QuestionField from './QuestionField.vue';

const asked = (variable: Omit<Variable, 'key'>): Question => ({
  key: 'size',
  label: 'Size',
  type: variable.type,
  locale: 'en-IE',
  required: false,
  value: undefined,
  source: 'none',
  within: [],
  variable: { key: 'size', ...variable },
});
const field = (variable: Omit<Variable, 'key'>) =>
  mount(QuestionField, { props: { question: asked(variable), given: undefined, adds: '' } });

describe('the control of a question', () => {
  it('is the one of its type', () => {
    expect(field({ type: 'yes-no' }).find('input[type="checkbox"]').exists()).toBe(true);
    expect(field({ type: 'paragraphs' }).find('textarea').exists()).toBe(true);
    expect(field({ type: 'money' }).find('input').attributes('inputmode')).toBe('decimal');
    for (const [type, kind] of [
      ['email', 'email'],
      ['phone', 'tel'],
      ['link', 'url'],
      ['text', 'text'],
    ] as const)
      expect(field({ type }).find('input').attributes('type')).toBe(kind);
  });

  it('is another one, with another help, once a newer version asks for another type', async () => {
    const shown = field({ type: 'yes-no', help: 'Tick it.' });
    await shown.setProps({ question: asked({ type: 'paragraphs', help: 'Say it.' }) });
    expect(shown.find('textarea').exists()).toBe(true);
    expect(shown.text()).toContain('Say it.');
    expect(shown.text()).not.toContain('Tick it.');
  });
});

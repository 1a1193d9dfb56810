// @vitest-environment happy-dom
import { mount } from '@vue/test-utils';
import { expect, it } from 'vitest';
import type { TypeName } from '@vocabula/core';
import TypedField from './TypedField.vue';

/** A field whose value follows what it says, as in a form. */
function field(type: TypeName, modelValue = '') {
  const wrapper = mount(TypedField, {
    props: {
      type,
      modelValue,
      locale: 'en-IE',
      'onUpdate:modelValue': (source: string): unknown => wrapper.setProps({ modelValue: source }),
    },
  });
  const input = wrapper.get('input');
  return {
    type(text: string) {
      input.element.value = text;
      return input.trigger('input');
    },
    leave: () => input.trigger('blur'),
    shown: () => input.element.value,
    source: () => wrapper.props('modelValue'),
  };
}

it('leaves what is being typed alone, and shows what was understood when it is left', async () => {
  const fee = field('money');
  await fee.type('1,2');
  expect([fee.shown(), fee.source()]).toEqual(['1,2', '1.2']);
  await fee.type('1,200');
  expect([fee.shown(), fee.source()]).toEqual(['1,200', '1200']);
  const day = field('date');
  await day.type('11 May');
  expect(day.source()).toBe('');
  await day.type('11 May 2027');
  expect([day.shown(), day.source()]).toEqual(['11 May 2027', '2027-05-11']);
  await day.leave();
  expect(day.shown()).toBe('Tue 11 May 2027');
});

it('keeps what is not understood, to be refused with words', async () => {
  const time = field('time', '14:30');
  await time.type('after lunch');
  await time.leave();
  expect([time.shown(), time.source()]).toEqual(['after lunch', 'after lunch']);
  await time.type('2 pm');
  await time.leave();
  expect(time.source()).toBe('14:00');
});

// @vitest-environment happy-dom
/** Dates and times as a person types them, and as they are shown. */
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, describe, expect, it } from 'vitest';
import { defineComponent, nextTick, ref, type Component } from 'vue';
import DayField from './DayField.vue';
import MomentField from './MomentField.vue';
import { englishOf, firstWeekday, showMoment } from './reader';
import WholeField from './WholeField.vue';

let wrapper: VueWrapper | undefined;
afterEach(() => wrapper?.unmount());
function show(template: string, state: Record<string, unknown>): VueWrapper {
  const components: Record<string, Component> = { DayField, MomentField, WholeField };
  wrapper = mount(defineComponent({ components, setup: () => state, template }), { attachTo: document.body });
  return wrapper;
}
async function typeInto(page: VueWrapper, name: string, words: string): Promise<void> {
  const field = page.get<HTMLInputElement>(`input[aria-label="${name}"]`);
  await field.setValue(words);
  await field.trigger('blur');
}

describe('the reader', () => {
  it('reads dates in their own English, and in British English where the browser speaks another language', () => {
    expect(['en-US', 'en', 'de-DE', 'fr'].map(englishOf)).toEqual(['en-US', 'en', 'en-GB', 'en-GB']);
    const at = new Date(2026, 2, 3, 9, 30);
    expect([showMoment(at, 'day', 'en-GB'), showMoment(at, 'day', 'en-US')]).toEqual(['3 March', 'March 3']);
    expect(showMoment(at, 'words', 'en-GB')).toBe('Tuesday, 3 March 2026 at 09:30');
  });
  it('has a week of their own', () => {
    expect(['en-GB', 'en-US', 'de-DE'].map((language) => firstWeekday(language))).toEqual([1, 0, 1]);
  });
});

describe('a date field', () => {
  it('takes words and digits, and shows the date whole', async () => {
    const day = ref('');
    const page = show('<DayField v-model="day" label="Until" locale="en-GB" />', { day });
    await typeInto(page, 'Until', '14/6/27');
    expect(day.value).toBe('2027-06-14');
    expect(page.get<HTMLInputElement>('input').element.value).toContain('June 2027');
  });
  it('keeps what is no date to itself and says so, until it is one', async () => {
    const day = ref('2027-06-14');
    const page = show('<DayField v-model="day" label="Until" locale="en-GB" />', { day });
    await typeInto(page, 'Until', 'some time');
    expect([day.value, page.get('[role=alert]').text()]).toEqual([
      '2027-06-14',
      '⚠ Type a date such as 14 June or 2027-06-14.',
    ]);
    expect(page.get('input').attributes('aria-invalid')).toBe('true');
    await typeInto(page, 'Until', '');
    expect([day.value, page.find('[role=alert]').exists()]).toEqual(['', false]);
  });
  it('hands what is no date on where the place judges it itself', async () => {
    const day = ref('');
    await typeInto(show('<DayField v-model="day" raw label="Visit" />', { day }), 'Visit', 'some time');
    expect(day.value).toBe('some time');
  });
});

describe('a time field', () => {
  it('understands times as people write them', async () => {
    const time = ref('09:00');
    const page = show('<WholeField v-model="time" type="time" locale="en-GB" aria-label="From" />', { time });
    await typeInto(page, 'From', '2 pm');
    expect(time.value).toBe('14:00');
    await typeInto(page, 'From', 'late');
    expect([time.value, page.get('[role=alert]').text()]).toEqual(['14:00', '⚠ Type a time such as 14:30 or 2 pm.']);
  });
});

describe('a moment', () => {
  it('is a day and a time, and none while both are empty', async () => {
    const at = ref('2027-06-14T09:30');
    const page = show('<MomentField v-model="at" label="Publish at" locale="en-GB" />', { at });
    await typeInto(page, 'Time of day', '17.15');
    expect(at.value).toBe('2027-06-14T17:15');
    await typeInto(page, 'Time of day', '');
    expect(Number.isNaN(Date.parse(at.value))).toBe(true);
    await typeInto(page, 'Publish at', '');
    await nextTick();
    expect(at.value).toBe('');
  });
});

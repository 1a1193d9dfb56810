import { nextTick } from 'vue';
import { describe, expect, it } from 'vitest';
import { useTrayTab } from './useTrayTab';

describe('the tray', () => {
  it('shows what is chosen in the text, wherever it was, and goes back', async () => {
    const { tab, shut, showChosen, goBack } = useTrayTab();
    tab.value = 'findings';
    shut.value = true;
    showChosen();
    expect([tab.value, shut.value]).toEqual(['chosen', false]);
    await nextTick();
    // Another thing is chosen: back leads to where the first was chosen from.
    showChosen();
    expect(goBack()).toBe(true);
    await nextTick();
    expect([tab.value, shut.value]).toEqual(['findings', true]);
    expect(goBack()).toBe(false);
  });
  it('has nothing to go back to once somebody went on to another part', async () => {
    const { tab, showChosen, goBack } = useTrayTab();
    showChosen();
    await nextTick();
    tab.value = 'outline';
    await nextTick();
    expect(goBack()).toBe(false);
    expect(tab.value).toBe('outline');
  });
});

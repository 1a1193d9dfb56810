/** A copy of the house that is being changed, and keeping it. */
import { PLAIN_HOUSE, type House } from '@vocabula/core';
import { computed, onMounted, ref } from 'vue';
import { useHouse } from '../ui/house';
import { useNotice } from '../ui/notice';

const copy = (house: House): House => JSON.parse(JSON.stringify(house)) as House;

export function useHouseDraft() {
  const house = useHouse();
  const notice = useNotice();
  const draft = ref<House>(copy(PLAIN_HOUSE));
  const ready = ref(false);
  onMounted(async () => {
    try {
      await house.load(true);
      draft.value = copy(house.house);
      ready.value = true;
    } catch (problem) {
      notice.fail(problem);
    }
  });
  async function save(): Promise<void> {
    const before = copy(house.house);
    try {
      await house.save(copy(draft.value));
      draft.value = copy(house.house);
      notice.say('Saved. Messages are made with it once it is published.', async () => {
        await house.save(before);
        draft.value = copy(house.house);
      });
    } catch (problem) {
      notice.fail(problem);
    }
  }
  const changed = computed(() => ready.value && JSON.stringify(draft.value) !== JSON.stringify(house.house));
  return { draft, ready, changed, save };
}

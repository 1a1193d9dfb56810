/** Who is being written to, for whatever is looked for meanwhile. */
import { defineStore } from 'pinia';
import { ref } from 'vue';

export const useWritingTo = defineStore('writing-to', () => {
  const address = ref('');
  return { address };
});

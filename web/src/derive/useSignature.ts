/** The signature that past mails have: it becomes that of who sends, where they have none yet. */
import { emptyDocument } from '@vocabula/core';
import { readPlain } from '@vocabula/core/plain';
import { computed, ref } from 'vue';
import { api } from '../api/client';
import { useMe } from '../ui/me';

export function useSignature() {
  const me = useMe();
  const busy = ref(false);
  const hasOwn = computed(() => me.profile.signature !== '');

  /**
   * Makes the lines one's own signature below new messages.
   * @returns what was done, in words: where it could not be published, it waits in Write
   */
  async function take(lines: readonly string[]): Promise<string> {
    busy.value = true;
    try {
      const title = `Signature: ${lines[0] ?? ''}`.slice(0, 200);
      const empty = emptyDocument({ kind: 'signature', title });
      const content = readPlain(lines.join('\n'));
      const document = {
        ...empty,
        content: empty.content.map((part) => (part.type === 'body' ? { ...part, content } : part)),
      };
      const { name, revision } = await api.createText({ kind: 'signature', title, document });
      try {
        await api.publish(name, { revision, note: 'From past mails' });
      } catch {
        return `“${title}” is a working copy. Publish it, then choose it in Settings.`;
      }
      await me.save({ ...me.profile, signature: name });
      return 'This is your signature now, below new messages.';
    } finally {
      busy.value = false;
    }
  }
  return { hasOwn, busy, take };
}

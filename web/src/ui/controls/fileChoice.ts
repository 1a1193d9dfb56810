/** Files that a person chooses from their machine. */
import { useFileDialog } from '@vueuse/core';

/**
 * A function that asks for files. What was chosen is given to `take`; the same file can be chosen twice.
 * `accept` is as in HTML: extensions and types, separated by commas.
 */
export function useFileChoice(
  take: (files: File[]) => void,
  { accept, multiple = false }: { readonly accept?: string; readonly multiple?: boolean } = {},
): () => void {
  const { open, onChange } = useFileDialog({ ...(accept ? { accept } : {}), multiple, reset: true });
  onChange((files) => {
    if (files && files.length > 0) take([...files]);
  });
  return () => open();
}

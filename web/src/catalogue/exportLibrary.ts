/** Exports texts as a zip that the browser saves. */
import type { PackLibrary } from '@vocabula/contract';
import { api } from '../api/client';
import { useNotice } from '../ui/notice';
import { saveFile } from '../ui/saveFile';

export async function exportLibrary(of: PackLibrary = {}): Promise<void> {
  const notice = useNotice();
  try {
    saveFile(await api.packLibrary(of), 'library.zip');
    notice.say('library.zip is saved.');
  } catch (problem) {
    notice.fail(problem);
  }
}

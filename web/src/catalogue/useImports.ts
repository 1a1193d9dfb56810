import { ref } from 'vue';
import { api } from '../api/client';
import { useFileChoice } from '../ui/controls/fileChoice';
import { useNotice } from '../ui/notice';
import { exportLibrary } from './exportLibrary';
import type { Catalogue } from './useCatalogue';

/** Import of files and libraries into the current folder, and export of everything: the acts of a menu. */
export function useImports({ folders, folder, load, go }: Pick<Catalogue, 'folders' | 'folder' | 'load' | 'go'>) {
  const notice = useNotice();
  /** The library that is being imported. */
  const library = ref<File>();

  async function importFiles(files: readonly File[]): Promise<void> {
    const here = folders.value.find(({ id, right }) => id === folder.value && right !== 'fill');
    try {
      const contents = await Promise.all(files.map(async (file) => ({ file: file.name, content: await file.text() })));
      const outcomes = await api.importFiles({ files: contents, ...(here ? { folder: here.id } : {}) });
      await load();
      const count = (what: string): number => outcomes.filter(({ outcome }) => outcome === what).length;
      notice.say(`Imported: ${count('new')} new, ${count('changed')} changed, ${count('same')} unchanged.`);
    } catch (problem) {
      notice.fail(problem);
    }
  }
  const chooseFiles = useFileChoice(importFiles, { accept: '.md,.yaml', multiple: true });
  const chooseLibrary = useFileChoice(
    ([file]) => {
      library.value = file;
      go({ in: folder.value, view: 'import' });
    },
    { accept: '.zip' },
  );
  const acts = [
    { label: 'Import files…', command: chooseFiles },
    { label: 'Import a library (zip)…', command: chooseLibrary },
    { label: 'Export everything (zip)', command: () => exportLibrary() },
  ];
  return { library, acts };
}

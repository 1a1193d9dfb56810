/** Files that a text shows or attaches: kept on the server once, refused with words where they are too much. */
import type { Editor } from '@tiptap/core';
import type { Asset } from '@vocabula/contract';
import { MAX_ASSET, MAX_IMAGE } from '@vocabula/contract/constants';
import { ref, shallowRef } from 'vue';
import { api } from '../../api/client';
import { useNotice } from '../../ui/notice';
import { putImage } from '../editor/operations/insert';

const megabytes = (bytes: number): string => `${(bytes / 1_000_000).toFixed(bytes < 10_000_000 ? 1 : 0)} MB`;

export function useAssets(editor: Editor, undo: () => void) {
  const notice = useNotice();
  const known = shallowRef<readonly Asset[]>([]);
  /** What is being sent, in words; empty for nothing. */
  const busy = ref('');

  async function load(): Promise<void> {
    known.value = await api.assets();
  }
  async function keep(file: Blob, name: string): Promise<Asset> {
    busy.value = `keeping ${name}…`;
    try {
      const asset = await api.addAsset(name, file);
      known.value = [...known.value.filter(({ path }) => path !== asset.path), asset];
      return asset;
    } finally {
      busy.value = '';
    }
  }

  /** Keeps an image to be shown; says itself why it cannot be. */
  async function keepImage(file: Blob, name: string): Promise<string | undefined> {
    try {
      if (file.type === 'image/svg+xml')
        throw new Error('An SVG can hold a script, so it cannot be shown in a message. Save it as PNG.');
      if (file.size > MAX_IMAGE)
        throw new Error(`An image has ${megabytes(MAX_IMAGE)} at most; “${name}” has ${megabytes(file.size)}.`);
      return (await keep(file, name)).path;
    } catch (problem) {
      notice.fail(problem);
      return undefined;
    }
  }
  /** Puts images in where the caret is. */
  async function putImages(files: readonly File[]): Promise<boolean> {
    let put = false;
    for (const file of files) {
      const src = await keepImage(file, file.name);
      if (!src) continue;
      putImage(editor.view, src);
      put = true;
    }
    return put;
  }

  /** Bytes of the files that the text attaches, as far as they are known. */
  function attached(): number {
    let sum = 0;
    editor.state.doc.descendants((node) => {
      if (node.type.name === 'attachment') sum += known.value.find(({ path }) => path === node.attrs.file)?.size ?? 0;
      return node.type.name === 'template' || node.type.name === 'attachments';
    });
    return sum;
  }
  /** Attaches files, each by its own name. */
  async function attach(files: readonly File[]): Promise<void> {
    try {
      await load();
      for (const file of files) {
        const together = attached() + file.size;
        if (together > MAX_ASSET)
          throw new Error(
            `Attachments have ${megabytes(MAX_ASSET)} together at most; with “${file.name}” they would have ${megabytes(together)}.`,
          );
        const asset = await keep(file, file.name);
        const { schema, doc, tr } = editor.state;
        let end = -1;
        doc.forEach((part, offset) => {
          if (part.type.name === 'attachments') end = offset + part.nodeSize - 1;
        });
        const node = schema.nodes.attachment?.create({ file: asset.path }, schema.text(file.name));
        if (node && end >= 0) editor.view.dispatch(tr.insert(end, node));
        notice.say(`“${file.name}” is attached.`, undo);
      }
    } catch (problem) {
      notice.fail(problem);
    }
  }
  return { known, busy, load, keepImage, putImages, attach };
}

export type Assets = ReturnType<typeof useAssets>;

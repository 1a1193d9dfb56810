/** What is pasted or dropped comes in clean: structure and emphasis kept, everything else left behind. */
import { Extension } from '@tiptap/core';
import { Fragment, Slice, type Node as PmNode } from '@tiptap/pm/model';
import { Plugin, TextSelection, type EditorState, type Transaction } from '@tiptap/pm/state';
import type { EditorView } from '@tiptap/pm/view';
import type { Block, HouseStyle, Inline } from '@vocabula/core';
import type { PastedHead } from '@vocabula/core/plain';
import { putImage } from '../operations/insert';
import { clear } from './deleting';

type Readers = typeof import('./readers');
let readers: Readers | undefined;
const loadReaders = async (): Promise<Readers> => (readers ??= await import('./readers'));

export interface PastingOptions {
  /** True for names that tags in pasted Markdown may stand for. */
  readonly known: (name: string) => boolean;
  /** Keeps an image, and gives the source by which texts name it; says itself why it cannot. */
  readonly keepImage: (file: Blob, name: string) => Promise<string | undefined>;
  /** Hears what was left out or refused, in words. */
  readonly say: (words: string) => void;
  /** Hears of images that came in, to be asked for their words. */
  readonly imagesCame: () => void;
  /** The colours of the house, of which words that are highlighted keep the nearest. */
  readonly colours: () => HouseStyle['colours'];
}

/** An address alone, which pasted over words makes a link of them. */
const ADDRESS = /^(?:https?:\/\/|mailto:|tel:)\S+$/;
const MAIL = /^[^\s@<>]+@[^\s@<>]+\.[^\s@<>]+$/;
const DATA_IMAGE = /data:image\/(?:png|jpeg|gif|webp);base64,[A-Za-z0-9+/=]+/g;

const imagesOf = (files: FileList | undefined): File[] =>
  [...(files ?? [])].filter(({ type }) => type.startsWith('image/'));

/** A slice that joins the lines around it where it begins and ends with a paragraph. */
export function sliceOf(nodes: readonly PmNode[]): Slice {
  const open = (node: PmNode | undefined): number => (node?.type.name === 'paragraph' ? 1 : 0);
  return new Slice(Fragment.fromArray([...nodes]), open(nodes[0]), open(nodes.at(-1)));
}

/** The blocks' words in one line, for places that hold no more. */
function inlineOf(blocks: readonly Block[]): Inline[] {
  const lines = blocks.flatMap((block): Inline[][] =>
    'content' in block && block.content && (block.type === 'paragraph' || block.type === 'heading')
      ? [
          (block.content as readonly Inline[]).map((node) =>
            node.type === 'hardBreak' ? { type: 'text', text: ' ' } : node,
          ),
        ]
      : [],
  );
  return lines.flatMap((line, index) => (index > 0 ? [{ type: 'text' as const, text: ' ' }, ...line] : line));
}

/** Puts a head into the lines of the envelope that are empty. */
function putHead(tr: Transaction, { subject, addresses }: PastedHead): void {
  const { schema } = tr.doc.type;
  const inline = (nodes: readonly Inline[]): PmNode[] => nodes.map((each) => schema.nodeFromJSON(each));
  const empty: { readonly node: PmNode; readonly pos: number }[] = [];
  tr.doc.forEach((node, pos) => {
    const address = node.childCount === 1 && node.firstChild?.type.name === 'address' ? node.firstChild : node;
    if (address.content.size === 0) empty.push({ node, pos });
  });
  // From the end, so that what stands before stays where it is.
  for (const { node, pos } of empty.toReversed()) {
    const name = node.type.name;
    if (name === 'subject' && subject) tr.insert(pos + 1, inline(subject));
    const found = name === 'subject' ? undefined : addresses[name as keyof PastedHead['addresses']];
    const address = schema.nodes.address;
    if (found && address)
      tr.replaceWith(
        pos + 1,
        pos + node.nodeSize - 1,
        found.map((each) => address.create(null, inline(each))),
      );
  }
}

/** Whether nothing was written yet where one stands: what is pasted there is a whole letter. */
const isUnwritten = ({ doc, selection }: EditorState): boolean => {
  const body = doc.lastChild;
  return selection.$from.node(1) === body && body?.childCount === 1 && body.firstChild?.content.size === 0;
};

/** Puts blocks in at the selection, as far as the place holds them; a head of theirs stands in the envelope. */
export function putBlocks(view: EditorView, blocks: readonly Block[], head?: PastedHead): void {
  const { state } = view;
  const { schema, selection } = state;
  // No event of the editor's own, whose rules would take signs for form: what is read here has its form already.
  const tr = state.tr.setMeta('paste', true);
  // What was selected goes, brackets left standing.
  clear(tr, selection.from, selection.to);
  const { parent } = selection.$from;
  const oneLine = parent.isTextblock && parent.type.name !== 'paragraph' && parent.type.name !== 'heading';
  const inCell = selection.$from.depth > 1 && /^table/.test(selection.$from.node(-1).type.name);
  if (oneLine || (inCell && blocks.every(({ type }) => type === 'paragraph' || type === 'heading'))) {
    const nodes = inlineOf(blocks).map((each) => schema.nodeFromJSON(each));
    const fitting = nodes.filter((node) => parent.type.contentMatch.matchType(node.type));
    const allowed = fitting.map((node) =>
      node.mark(node.marks.filter((mark) => parent.type.allowsMarkType(mark.type))),
    );
    tr.replaceSelection(new Slice(Fragment.fromArray(allowed), 0, 0));
  } else tr.replaceSelection(sliceOf(blocks.map((block) => schema.nodeFromJSON(block))));
  if (head) putHead(tr, head);
  view.dispatch(tr.scrollIntoView());
}

export const Pasting = Extension.create<PastingOptions>({
  name: 'pasting',
  addOptions: () => ({
    known: () => false,
    keepImage: () => Promise.resolve(undefined),
    say: () => undefined,
    imagesCame: () => undefined,
    colours: () => ({}),
  }),
  // eslint-disable-next-line max-lines-per-function -- the ways of pasting share the options of the extension
  addProseMirrorPlugins() {
    const { known, keepImage, say, imagesCame, colours } = this.options;

    async function putImages(view: EditorView, files: readonly File[]): Promise<void> {
      for (const file of files) {
        const src = await keepImage(file, file.name || 'image.png');
        if (!src || view.isDestroyed) continue;
        putImage(view, src);
        imagesCame();
      }
    }

    function putLetter(view: EditorView, blocks: readonly Block[], pastedHead: Readers['pastedHead']): void {
      const head = isUnwritten(view.state) ? pastedHead(blocks) : undefined;
      putBlocks(view, head?.rest ?? blocks, head);
    }

    /** Puts HTML in; images that stand in it as data are kept first. */
    function putHtml(view: EditorView, html: string, { readHtml, nearestColour, pastedHead }: Readers): void {
      const kept = new Map<string, string>();
      const read = (): void => {
        const { blocks, imagesLeftOut } = readHtml(html, {
          image: (source) => kept.get(source),
          highlight: (colour) => nearestColour(colour, colours()),
        });
        putLetter(view, blocks, pastedHead);
        if (imagesLeftOut > 0)
          say(`${imagesLeftOut === 1 ? 'An image' : `${imagesLeftOut} images`} could not be pasted.`);
      };
      const sources = [...new Set(html.match(DATA_IMAGE) ?? [])];
      if (sources.length === 0) return read();
      void keepAll(sources, kept).then(() => {
        if (!view.isDestroyed) read();
      });
    }
    async function keepAll(sources: readonly string[], kept: Map<string, string>): Promise<void> {
      for (const [index, source] of sources.entries()) {
        const [head = '', data = ''] = source.split(',');
        const type = head.slice(5, head.indexOf(';'));
        const bytes = Uint8Array.from(atob(data), (letter) => letter.charCodeAt(0));
        const src = await keepImage(new Blob([bytes], { type }), `pasted-${index + 1}.${type.split('/')[1] ?? 'png'}`);
        if (src) kept.set(source, src);
      }
    }

    function paste(view: EditorView, data: DataTransfer | null, plainly: boolean): boolean {
      if (!data) return false;
      const html = data.getData('text/html');
      const text = data.getData('text/plain');
      const { $from, empty, from, to } = view.state.selection;
      if ($from.parent.type.spec.code) return false;
      const images = imagesOf(data.files);
      if (images.length > 0 && html === '') {
        void putImages(view, images);
        return true;
      }
      const address = text.trim();
      const href = MAIL.test(address) ? `mailto:${address}` : address;
      const link = ADDRESS.test(href) ? view.state.schema.marks.link?.create({ href }) : undefined;
      if (link && !empty && $from.parent.type.allowsMarkType(link.type)) {
        view.dispatch(view.state.tr.addMark(from, to, link));
        return true;
      }
      if (html.includes('data-pm-slice')) return false;
      if (readers) return put(view, html, text, plainly, readers);
      void loadReaders().then((loaded) => {
        if (view.isDestroyed || put(view, html, text, plainly, loaded)) return;
        view.dispatch(view.state.tr.insertText(text).setMeta('paste', true).scrollIntoView());
      });
      return true;
    }
    /** Puts in what was read of the clipboard; false for words of one line, which the editor puts in itself. */
    function put(view: EditorView, html: string, text: string, plainly: boolean, read: Readers): boolean {
      try {
        if (html !== '' && !plainly) putHtml(view, html, read);
        else if (read.looksLikeMarkdown(text) && !plainly)
          putLetter(view, read.readMarkdown(text, known), read.pastedHead);
        else if (/[\n\t]/.test(text)) putLetter(view, read.readPlain(text), read.pastedHead);
        else return false;
      } catch (problem) {
        say(problem instanceof Error ? problem.message : 'That could not be pasted.');
      }
      return true;
    }

    let plainly = false;
    return [
      new Plugin({
        props: {
          handleKeyDown(_view, event) {
            // With Shift, what is pasted comes as plain words.
            plainly = event.shiftKey && (event.ctrlKey || event.metaKey) && event.key.toLowerCase() === 'v';
            return false;
          },
          // Before the editor reads the clipboard its own way, which takes long for much of it.
          handleDOMEvents: {
            keydown: () => void loadReaders(),
            paste(view, event) {
              if (!paste(view, event.clipboardData, plainly)) return false;
              event.preventDefault();
              return true;
            },
          },
          handleDrop(view, event, _slice, moved) {
            const images = imagesOf(event.dataTransfer?.files);
            const html = event.dataTransfer?.getData('text/html') ?? '';
            const at = view.posAtCoords({ left: event.clientX, top: event.clientY });
            if (moved || !at || (images.length === 0 && (html === '' || html.includes('data-pm-slice')))) return false;
            event.preventDefault();
            view.dispatch(view.state.tr.setSelection(TextSelection.near(view.state.doc.resolve(at.pos))));
            return paste(view, event.dataTransfer, false);
          },
        },
      }),
    ];
  },
});

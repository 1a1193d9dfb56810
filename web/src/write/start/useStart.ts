/** What a text is started from: nothing, a paste, a file, a starter, another text. */
import type { Starter } from '@vocabula/contract';
import { emptyDocument, part, plainWords, type Block, type Kind, type TextDocument } from '@vocabula/core';
import { HtmlProblem, nearestColour, readHtml } from '@vocabula/core/html';
import { looksLikeMarkdown, readMarkdown, readPlain, withPastedHead } from '@vocabula/core/plain';
import { computed, ref, shallowRef } from 'vue';
import { api } from '../../api/client';
import { useHouse } from '../../ui/house';

export type StartFrom = 'nothing' | 'paste' | 'file' | 'starter' | 'copy';

/** A document with these blocks; a head that they begin with stands in its envelope. */
function documentOf(blocks: readonly Block[]): TextDocument {
  const empty = emptyDocument({ kind: 'message', title: '' });
  return withPastedHead({
    ...empty,
    content: empty.content.map((part) => (part.type === 'body' ? { ...part, content: blocks } : part)),
  });
}
const subjectOf = (document: TextDocument): string => plainWords(part(document, 'subject').content);

/** A block or signature has no envelope. */
function bodyOnly(document: TextDocument): TextDocument {
  const empty = emptyDocument(document.attrs.front);
  return {
    ...document,
    content: empty.content.map(
      (part) => document.content.find(({ type }) => type === part.type && type === 'body') ?? part,
    ),
  };
}

export function useStart() {
  const house = useHouse();
  const from = ref<StartFrom>('nothing');
  const kind = ref<Kind>('message');
  const document = shallowRef<TextDocument>();
  /** What the source would call itself; it becomes the title only where somebody takes it. */
  const suggestion = ref('');
  const notes = ref<readonly string[]>([]);
  const problem = ref('');
  const busy = ref(false);

  function take(found: TextDocument | undefined, called = '', said: readonly string[] = []): void {
    document.value = found;
    suggestion.value = called;
    notes.value = said;
    problem.value = '';
  }
  function choose(next: StartFrom): void {
    from.value = next;
    take(undefined);
  }
  /** Does something that may fail, in words. */
  async function attempt(work: () => Promise<void>): Promise<void> {
    busy.value = true;
    try {
      await work();
    } catch (error) {
      take(undefined);
      problem.value = error instanceof Error ? error.message : 'That could not be read.';
    } finally {
      busy.value = false;
    }
  }

  function paste(data: DataTransfer | null): Promise<void> {
    return attempt(async () => {
      const html = data?.getData('text/html') ?? '';
      const text = data?.getData('text/plain') ?? '';
      if (html === '' && text.trim() === '') throw new HtmlProblem('There was no text on the clipboard.');
      if (html === '') {
        const found = documentOf(looksLikeMarkdown(text) ? readMarkdown(text) : readPlain(text));
        return take(found, subjectOf(found));
      }
      // Images that stand in the HTML itself are left out here; pasted into the manuscript they come along.
      // Without the house, what is highlighted takes the plain one's colours.
      await house.load().catch(() => undefined);
      const { blocks, imagesLeftOut } = readHtml(html, {
        highlight: (colour) => nearestColour(colour, house.house.style.colours),
      });
      const said =
        imagesLeftOut > 0 ? [`${imagesLeftOut} ${imagesLeftOut === 1 ? 'image' : 'images'} could not be pasted.`] : [];
      const found = documentOf(blocks);
      take(found, subjectOf(found), said);
    });
  }
  const file = (given: File): Promise<void> =>
    attempt(async () => {
      const { document: found, suggestedTitle, notes: said } = await api.convert(given.name, given);
      take(found, suggestedTitle, said);
    });
  const starter = ({ document: found, title }: Starter): void => take(found, title);
  const copy = (name: string): Promise<void> =>
    attempt(async () => {
      const { document: found } = await api.text(name);
      const said = found.attrs.front.call ? ['The call word stays with the other text.'] : [];
      take(found, `${found.attrs.front.title} (copy)`, said);
    });

  const ready = computed(() => from.value === 'nothing' || document.value !== undefined);
  /** Makes the text, and gives its name. */
  async function start(title: string, folder?: string): Promise<string> {
    const body = document.value && (kind.value === 'message' ? document.value : bodyOnly(document.value));
    const made = await api.createText({
      kind: kind.value,
      title,
      ...(body ? { document: body } : {}),
      ...(folder ? { folder } : {}),
    });
    return made.name;
  }
  return { from, kind, document, suggestion, notes, problem, busy, ready, choose, paste, file, starter, copy, start };
}

export type Start = ReturnType<typeof useStart>;

import { withoutAtEnd } from '../words/ends.js';
import { advice } from '../findings/finding.js';
import type { Inline, TextDocument } from '../template/document.js';
import { childrenOf, visit } from '../template/walk.js';
import type { Finding } from '../findings/finding.js';
import type { Check } from './check.js';

const VAGUE: Readonly<Record<string, RegExp>> = {
  en: /^(?:click |see |read |go )?(?:here|this|this link|this page|more|link|read more|learn more|click)$/i,
  de: /^(?:hier|hier klicken|klicken sie hier|mehr|link|weiterlesen|dieser link)$/i,
  fr: /^(?:ici|cliquez ici|ce lien|lien|plus|en savoir plus)$/i,
  es: /^(?:aquí|haga clic aquí|este enlace|enlace|más)$/i,
  it: /^(?:qui|clicca qui|questo link|link|più)$/i,
  nl: /^(?:hier|klik hier|deze link|link|meer)$/i,
};
const ADDRESS = /^(?:https?:\/\/|www\.)\S+$/i;
const WRITTEN = /(?<![\p{L}\p{N}@/.])(?:https?:\/\/|www\.)[^\s<>"“”]+[^\s<>"“”.,;:!?)]/giu;

/** The links of a document: their words, and where they begin. */
function links(document: TextDocument): { readonly words: string; readonly path: readonly number[] }[] {
  const found: { words: string; path: readonly number[] }[] = [];
  visit(document, (node, path) => {
    let open: { words: string; path: readonly number[]; href: string } | undefined;
    childrenOf(node).forEach((child, index) => {
      const inline = child as Inline;
      const mark = 'marks' in inline ? inline.marks?.find(({ type }) => type === 'link') : undefined;
      const href = mark ? JSON.stringify(mark) : '';
      const words = inline.type === 'text' ? inline.text : '\uFFFC';
      if (open && mark && href === open.href) open.words += words;
      else {
        if (open) found.push(open);
        open = mark ? { words, path: [...path, index], href } : undefined;
      }
    });
    if (open) found.push(open);
    if (node.type === 'button')
      found.push({
        words: (node.content ?? []).map((each) => (each.type === 'text' ? each.text : '\uFFFC')).join(''),
        path,
      });
  });
  return found;
}

/** A link whose words do not say where it leads, to one who hears the links of a message one after the other. */
export const vagueLink: Check = {
  languages: Object.keys(VAGUE),
  run: ({ document, language }) =>
    links(document).flatMap(({ words, path }): Finding[] =>
      VAGUE[language]?.test(withoutAtEnd(words.trim(), '.,:!…→>»').trim())
        ? [advice({ code: 'vague-link', text: words.trim() }, { path })]
        : [],
    ),
};

/** A long address that stands bare: read letter by letter by those who listen, and broken by those who quote it. */
export const bareLink: Check = {
  run: ({ document, lines }) => [
    ...links(document).flatMap(({ words, path }): Finding[] =>
      ADDRESS.test(words.trim()) && words.trim().length > 40
        ? [advice({ code: 'bare-link', why: 'shown' }, { path }, 'note')]
        : [],
    ),
    ...lines.flatMap((line) =>
      [...line.text.matchAll(WRITTEN)].flatMap((match): Finding[] => {
        const at = line.at(match.index);
        const isLink = at && links(document).some(({ path }) => path.join() === at.path.join());
        return at && !isLink
          ? [advice({ code: 'bare-link', why: 'unlinked', text: match[0] }, { ...at, length: match[0].length })]
          : [];
      }),
    ),
  ],
};

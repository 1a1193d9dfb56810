/** The head of an old letter that was pasted with it: `Subject: …`, `To: …`, each on a line of its own. */
import { plainWords, type AddressesName, type Block, type Inline, type TextDocument } from '../../template/document.js';

/** What stood in a head, by the part of the envelope it belongs to; addresses apart. */
export interface PastedHead {
  readonly subject?: readonly Inline[];
  readonly addresses: Readonly<Partial<Record<AddressesName, readonly (readonly Inline[])[]>>>;
  /** The blocks that follow it. */
  readonly rest: readonly Block[];
}

/** What lines of a head begin with, in the usual languages. `none` has no place in a template. */
const NAMES: readonly (readonly [RegExp, 'subject' | AddressesName | 'none'])[] = [
  [/^(?:subject|betreff|objet|asunto|oggetto|onderwerp)\s*:\s*/iu, 'subject'],
  [/^(?:to|an|à|para|aan)\s*:\s*/iu, 'to'],
  [/^(?:cc|copy|kopie|copie|copia)\s*:\s*/iu, 'cc'],
  [/^bcc\s*:\s*/iu, 'bcc'],
  [/^(?:reply[- ]to|antwort an)\s*:\s*/iu, 'reply_to'],
  [/^(?:from|von|de|da|van|date|datum|sent|gesendet|envoyé|enviado)\s*:\s*/iu, 'none'],
];
/** What an address has in it, or a marker that stands for one. */
const ADDRESSED = /@|\[|<<|\{|_{3}/;
/** Paragraphs that a head may take. */
const MOST = 8;

/**
 * Reads the head that some blocks begin with. Undefined where they do not begin with one: a subject is the least, and a
 * line that only begins like one (“To: whom it may concern”) is none.
 */
export function pastedHead(blocks: readonly Block[]): PastedHead | undefined {
  let subject: readonly Inline[] | undefined;
  const addresses: Partial<Record<AddressesName, (readonly Inline[])[]>> = {};
  let taken = 0;
  for (const block of blocks.slice(0, MOST)) {
    if (block.type !== 'paragraph') break;
    const lines = linesOf(block.content ?? []);
    const read = lines.map(headLine);
    // A paragraph belongs to the head as a whole, or not at all.
    if (read.length === 0 || read.some((each) => each === undefined)) break;
    for (const line of read) {
      if (!line || line.part === 'none') continue;
      if (line.part === 'subject') subject ??= line.words;
      else addresses[line.part] = [...(addresses[line.part] ?? []), ...eachAddress(line.words)];
    }
    taken += 1;
  }
  return subject === undefined ? undefined : { subject, addresses, rest: blocks.slice(taken) };
}

/** Puts a head into the envelope of a document whose body it was pasted with. */
export function withPastedHead(document: TextDocument): TextDocument {
  const body = document.content.find((each) => each.type === 'body');
  const head = body?.type === 'body' ? pastedHead(body.content) : undefined;
  if (!head) return document;
  return {
    ...document,
    content: document.content.map((each) => {
      switch (each.type) {
        case 'subject':
          return head.subject ? { ...each, content: head.subject } : each;
        case 'to':
        case 'cc':
        case 'bcc':
        case 'reply_to': {
          const found = head.addresses[each.type];
          return found ? { ...each, content: found.map((content) => ({ type: 'address' as const, content })) } : each;
        }
        case 'body':
          return { ...each, content: head.rest.length > 0 ? head.rest : [{ type: 'paragraph' as const }] };
        default:
          return each;
      }
    }) as TextDocument['content'],
  };
}

const linesOf = (content: readonly Inline[]): Inline[][] =>
  content.reduce<Inline[][]>(
    (lines, node) => {
      if (node.type === 'hardBreak') lines.push([]);
      else lines.at(-1)?.push(bare(node));
      return lines;
    },
    [[]],
  );
/** Lines of the envelope have no form. */
const bare = ({ marks: _marks, ...node }: Inline): Inline => node as Inline;

function headLine(
  line: readonly Inline[],
): { readonly part: (typeof NAMES)[number][1]; readonly words: Inline[] } | undefined {
  // The name may be bold, and so be a text node of its own.
  const joined = joinTexts(line);
  const [first, ...others] = joined;
  if (first?.type !== 'text') return undefined;
  for (const [pattern, part] of NAMES) {
    const match = pattern.exec(first.text.trimStart());
    if (!match) continue;
    const rest = first.text.trimStart().slice(match[0].length);
    const words = [...(rest === '' ? [] : [{ ...first, text: rest }]), ...others];
    const said = plainWords(words);
    if (said.trim() === '') return undefined;
    const isMeant = part === 'subject' || part === 'none' || ADDRESSED.test(said) || others.length > 0;
    return isMeant ? { part, words } : undefined;
  }
  return undefined;
}

const joinTexts = (nodes: readonly Inline[]): Inline[] =>
  nodes.reduce<Inline[]>((joined, node) => {
    const last = joined.at(-1);
    if (last?.type === 'text' && node.type === 'text')
      joined[joined.length - 1] = { ...last, text: last.text + node.text };
    else joined.push(node);
    return joined;
  }, []);

/** Addresses of a line, which commas and semicolons part where it is nothing but text. */
function eachAddress(words: readonly Inline[]): (readonly Inline[])[] {
  const [only, ...others] = words;
  if (only?.type !== 'text' || others.length > 0) return [words];
  // A comma in quotation marks belongs to a name.
  return (only.text.match(/(?:"[^"]*"|[^,;"])+/g) ?? [])
    .map((each) => each.trim())
    .filter((each) => each !== '')
    .map((text) => [{ ...only, text }]);
}

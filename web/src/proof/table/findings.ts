/** Findings over the template and all its messages at once: each once, with where and for whom. */
import type { KeptAside } from '@vocabula/contract';
import { childrenOf, error, nodeAt, plainWords, type Finding, type Inline, type TextDocument } from '@vocabula/core';
import { digestOf } from '@vocabula/core/proof';
import type { SentSheet, Series } from './protocol';

export interface FindingGroup {
  /** Of the finding and the words it is about: another, as soon as they change. */
  readonly fingerprint: string;
  readonly finding: Finding;
  /** The words at its place, as the author reads them. */
  readonly context: string;
  /** True if it is the template's own, whoever is written to. */
  readonly always: boolean;
  /** The messages it appears in, by their numbers. */
  readonly in: Readonly<Record<Series, readonly number[]>>;
  readonly aside: KeptAside | undefined;
}

export interface FindingSources {
  readonly name: string;
  readonly texts: readonly { readonly name: string; readonly document: TextDocument }[];
  readonly template: readonly Finding[];
  readonly sheets: Readonly<Record<Series, readonly (SentSheet | undefined)[]>>;
  readonly setAside: readonly KeptAside[];
  readonly labelOf: (key: string) => string;
}

const LEVELS = { error: 0, warning: 1, note: 2 } as const;

/** Groups findings, the gravest and commonest first; those set aside are among them. */
export function groupFindings(sources: FindingSources): FindingGroup[] {
  const { name, texts, template, sheets, setAside } = sources;
  interface Growing extends FindingGroup {
    always: boolean;
    readonly in: Record<Series, number[]>;
  }
  const groups = new Map<string, Growing>();
  const documents = new Map(texts.map((text) => [text.name, text.document]));
  const known = new Map<string, { fingerprint: string; context: string }>();
  const aside = new Map(setAside.map((each) => [each.fingerprint, each]));
  const groupOf = (finding: Finding): Growing => {
    const id = JSON.stringify([finding.code, finding.message, finding.place]);
    let print = known.get(id);
    if (!print) {
      print = fingerprintOf(finding, documents.get(finding.place.text ?? name), name);
      known.set(id, print);
    }
    let group = groups.get(print.fingerprint);
    if (!group) {
      group = {
        ...print,
        finding,
        always: false,
        in: { recipients: [], hard: [], pairing: [] },
        aside: aside.get(print.fingerprint),
      };
      groups.set(print.fingerprint, group);
    }
    return group;
  };
  for (const finding of template) groupOf(finding).always = true;
  for (const [series, all] of Object.entries(sheets) as [Series, readonly (SentSheet | undefined)[]][])
    all.forEach((sheet, at) => {
      if (!sheet) return;
      const blanks = sheet.blanks.map((key): Finding => blankFinding(key, sources.labelOf(key)));
      for (const finding of [...blanks, ...sheet.findings]) {
        const list = groupOf(finding).in[series];
        if (list.at(-1) !== at) list.push(at);
      }
    });
  return [...groups.values()].sort(
    (a, b) =>
      LEVELS[a.finding.level] - LEVELS[b.finding.level] || Number(b.always) - Number(a.always) || count(b) - count(a),
  );
}

const count = (group: FindingGroup): number => Object.values(group.in).reduce((sum, list) => sum + list.length, 0);

/** A blank, said as a finding; it has the code of a wrong value, for neither is ready to be sent. */
const blankFinding = (key: string, label: string): Finding =>
  error({ code: 'bad-value', why: 'blank', label }, { variable: key, attribute: 'blank' });

function fingerprintOf(
  { code, message, place }: Finding,
  document: TextDocument | undefined,
  name: string,
): { fingerprint: string; context: string } {
  const context = document && place.path ? contextAt(document, place.path) : '';
  const about = context !== '' ? context : place.variable !== undefined ? '' : message;
  const offset = context !== '' && place.offset !== undefined ? context.slice(place.offset, place.offset + 20) : '';
  return {
    context,
    fingerprint: digestOf([
      code,
      place.text ?? name,
      about,
      offset,
      place.variable ?? '',
      place.attribute ?? '',
      place.variable === undefined || place.attribute === 'blank' ? '' : message,
    ]),
  };
}

/** The words of the line at a path, or of the node there. */
function contextAt(document: TextDocument, path: readonly number[]): string {
  for (let length = path.length; length > 0; length -= 1) {
    const node = nodeAt(document, path.slice(0, length));
    if (!node) continue;
    const words = plainWords(childrenOf(node) as readonly Inline[]);
    if (words !== '') return words;
  }
  return '';
}

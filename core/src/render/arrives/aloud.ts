/** A message as it is read aloud: one line for everything that is said, in order. */
import { isTag, isText } from 'domhandler';
import { languageName } from '../../values/intl.js';
import type { Losses } from './loss.js';
import { elementsOf, textIn, type ChildNode, type Document, type Element } from './tree.js';

/** Something that is said: what it is, and the words. */
export interface Spoken {
  /** What a voice says before the words: `heading 1`, `link`, `list, 3 items`; empty for plain paragraphs. */
  readonly as: string;
  readonly words: string;
  /** How deep it stands in lists, tables and quotations. */
  readonly level: number;
}

const COUNT = (number: number, one: string): string => `${number} ${one}${number === 1 ? '' : 's'}`;

/** @param locale of the message, in which names of languages are said */
// eslint-disable-next-line max-lines-per-function -- its functions call each other and say into one list
export function readAloud(tree: Document, locale: string, losses: Losses): readonly Spoken[] {
  const spoken: Spoken[] = [];
  const body = [...elementsOf(tree.children)].find(({ name }) => name === 'body');
  const say = (as: string, words: string, level: number): void => {
    if (as !== '' || words !== '') spoken.push({ as, words, level });
  };
  const children = (element: Element, level: number): void => go(element.children, level);

  /** Words in a line, with what stands among them said in place. */
  function line(nodes: readonly ChildNode[]): string {
    let out = '';
    for (const node of nodes) {
      if (isText(node)) out += node.data;
      else if (isTag(node)) {
        const { lang, alt, href } = node.attribs;
        if (node.name === 'img') {
          if (!alt) losses.note('an image', node, 'nothing is said of it');
          out += alt ? ` [image: ${alt}] ` : ' [image] ';
        } else if (node.name === 'br') out += ' ';
        else if (node.name === 'a' && href !== undefined) out += `${line(node.children)} [link]`;
        else if (lang !== undefined) out += `[${languageName(lang, locale)}: ${line(node.children)}]`;
        else {
          if (/(?:^|;)background-color:/.test(node.attribs.style ?? '') || node.attribs.class?.startsWith('c-'))
            losses.note('colours', node, 'the words are said without them');
          out += line(node.children);
        }
      }
    }
    return out.replace(/\s+/g, ' ');
  }
  function go(nodes: readonly ChildNode[], level: number): void {
    for (const node of nodes) if (isTag(node)) block(node, level);
  }
  function block(element: Element, level: number): void {
    const { name, attribs } = element;
    const parts = (tag: string): Element[] =>
      element.children.filter((each) => isTag(each) && each.name === tag) as Element[];
    switch (name) {
      case 'h1':
      case 'h2':
      case 'h3':
        return say(`heading ${name.slice(1)}`, line(element.children).trim(), level);
      case 'ul':
      case 'ol':
        say(`${name === 'ol' ? 'numbered list' : 'list'}, ${COUNT(parts('li').length, 'item')}`, '', level);
        return parts('li').forEach((item, at) => listItem(item, name === 'ol' ? `${at + 1}.` : '•', level + 1));
      case 'blockquote':
        say('quotation', '', level);
        return children(element, level + 1);
      case 'hr':
        return say('separator', '', level);
      case 'pre':
        return say('code', textIn(element.children), level);
      case 'table':
        if (attribs.role === 'presentation') return children(element, level);
        return dataTable(element, level);
      case 'div':
        if (attribs.lang !== undefined) say(`in ${languageName(attribs.lang, locale)}`, '', level);
        return children(element, level);
      case 'a':
        return say('link', line(element.children).trim(), level);
      case 'p':
        return say('', line(element.children).trim(), level);
      default:
        return children(element, level);
    }
  }
  function listItem(item: Element, mark: string, level: number): void {
    const holdsBlocks = item.children.some(
      (each) => isTag(each) && /^(?:p|ul|ol|table|blockquote|pre|h[1-3]|div)$/.test(each.name),
    );
    if (!holdsBlocks) return say(mark, line(item.children).trim(), level);
    say(mark, '', level);
    children(item, level + 1);
  }
  function dataTable(table: Element, level: number): void {
    const rows = [...elementsOf(table.children)].filter((each) => each.name === 'tr');
    const cells = (row: Element | undefined): Element[] =>
      (row?.children ?? []).filter((each): each is Element => isTag(each) && /^t[hd]$/.test(each.name));
    const heads = cells(rows[0]).every((cell) => cell.name === 'th')
      ? cells(rows[0]).map((cell) => line(cell.children).trim())
      : [];
    if (heads.length === 0) losses.note('which column a cell is of', table, 'the table has no head');
    say(`table, ${COUNT(cells(rows[0]).length, 'column')}, ${COUNT(rows.length, 'row')}`, '', level);
    for (const row of heads.length > 0 ? rows.slice(1) : rows)
      cells(row).forEach((cell, at) => say(heads[at] ?? '', line(cell.children).trim(), level + 1));
  }

  go(body?.children ?? tree.children, 0);
  return spoken;
}

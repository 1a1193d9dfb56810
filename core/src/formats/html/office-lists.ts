/**
 * Lists of word processors, which write each item as a paragraph that says `mso-list: l0 level2 lfo1` and holds its
 * own mark. They are put back into the elements that lists are.
 */
import { Element, Text, type ChildNode } from 'domhandler';
import { isElement, isText, styleOf } from './clean.js';

interface Item {
  readonly element: Element;
  readonly level: number;
  readonly ordered: boolean;
}

/** The same nodes, with runs of such paragraphs replaced by lists. */
export function officeLists(nodes: readonly ChildNode[]): ChildNode[] {
  const out: ChildNode[] = [];
  let run: Item[] = [];
  const endRun = (): void => {
    if (run.length > 0) out.push(listOf(run));
    run = [];
  };
  for (const node of nodes) {
    const item = isElement(node) ? itemOf(node) : undefined;
    if (item) run.push(item);
    else if (run.length > 0 && !isElement(node) && (!isText(node) || node.data.trim() === '')) continue;
    else {
      endRun();
      if (isElement(node)) node.children = officeLists(node.children);
      out.push(node);
    }
  }
  endRun();
  return out;
}

function itemOf(element: Element): Item | undefined {
  if (element.name !== 'p' && element.name !== 'div') return undefined;
  const level = /\blevel(\d)\b/.exec(styleOf(element).get('mso-list') ?? '')?.[1];
  if (level === undefined) return undefined;
  const mark = takeMark(element);
  return { element, level: Number(level), ordered: /^\(?[a-z0-9]{1,4}[.)]/i.test(mark) };
}

/** Takes the mark that the paragraph holds out of it, and gives its words. */
function takeMark(element: Element): string {
  for (const child of element.children) {
    if (!isElement(child)) continue;
    if (styleOf(child).get('mso-list') === 'ignore') {
      element.children = element.children.filter((each) => each !== child);
      return textOf(child).trim();
    }
    const inner = takeMark(child);
    if (inner !== '') return inner;
  }
  return '';
}

const textOf = (element: Element): string =>
  element.children.map((child) => (isText(child) ? child.data : isElement(child) ? textOf(child) : '')).join('');

/** Items of rising level hang under the item before them. */
function listOf(items: readonly Item[]): Element {
  const [first] = items as [Item, ...Item[]];
  const list = new Element(first.ordered ? 'ol' : 'ul', {}, []);
  for (let at = 0; at < items.length;) {
    const item = items[at] as Item;
    let end = at + 1;
    while (end < items.length && (items[end] as Item).level > item.level) end += 1;
    const children: ChildNode[] = [...item.element.children];
    if (end > at + 1) children.push(listOf(items.slice(at + 1, end)));
    list.children.push(new Element('li', {}, children.length > 0 ? children : [new Text('')]));
    at = end;
  }
  return list;
}

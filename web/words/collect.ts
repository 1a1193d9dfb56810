/**
 * Finds the words of the interface in components and modules, with their places, so that they can be read as one table
 * and be replaced by those of another language when the application is built.
 *
 * What counts as words: text in templates, attributes that people see or hear, and string literals that hold a phrase, or
 * stand where words are shown (`label`, `words`, `title` … or a branch in a template). Values put into words are written
 * `{0}`, `{1}` …
 */
import { parse as parseComponent } from '@vue/compiler-sfc';
import ts from 'typescript';

/** Some words at their place in a file. */
export interface Found {
  /** Place in the file, in UTF-16 units. */
  readonly start: number;
  readonly end: number;
  /** The words, with `{n}` for the n-th value. */
  readonly words: string;
  readonly kind: 'text' | 'attribute' | 'string' | 'template';
  /** Whether a string is a branch of a value in a template, so that it is shown for certain. */
  readonly isShown?: boolean;
  /** Places of the values' expressions. */
  readonly values: readonly (readonly [start: number, end: number])[];
}

const SHOWN_ATTRIBUTES = new Set([
  ...['label', 'placeholder', 'title', 'about', 'help', 'header', 'alt', 'empty', 'words', 'adds'],
  ...['aria-label', 'aria-description', 'aria-roledescription'],
]);
/** Names of properties and parameters whose strings are shown, also single words. */
const SHOWN_NAMES = new Set([
  ...['label', 'placeholder', 'title', 'about', 'help', 'header', 'words', 'says', 'detail', 'does', 'message'],
  ...['yes', 'no', 'empty', 'evidence', 'heading'],
]);
/** Calls whose strings are for programs. */
const UNSHOWN_CALLS =
  /^(querySelector(All)?|closest|matches|addEventListener|removeEventListener|getAttribute|setAttribute|toggle|defineStore|import|dispatchEvent|Event|CustomEvent|KeyboardEvent|Symbol|createElement|insertContent|RegExp|exec|test|split|join|replace|startsWith|endsWith|includes|get|set|has|open|format|useMediaQuery|emit|push|commands|Worker|URL|RangeError|TypeError)$/;
const LETTER = /\p{L}/u;
/** Two words in a row, or one that begins like a sentence. */
const PHRASE = /\p{L}[\p{L}\p{P}]*\s+\P{Zs}*[\p{L}\p{N}{]|^\p{Lu}\p{Ll}+[\p{L} …?.!]*$/u;
/** Style, markup, paths, patterns and dates. */
const CODE =
  /^[A-Z]+ \/|[<>=;#\\|]|\b\d*(px|fr|deg|rem)\b|^[.[:]|[a-z]\(|\w:\w|\/\w+\/|\{\{|var\(--|^\W*\{\d\}\W*(\{\d\}\W*)*$/;

const isWords = (words: string): boolean => LETTER.test(words.replace(/\{\d+\}/g, '')) && !CODE.test(words);

/**
 * Strings that programs compare: members of union types, cases, and what stands beside `===`. They are not words, even
 * where they look like some.
 */
export function valuesIn(file: string, source: string): Set<string> {
  const values = new Set<string>();
  const scripts = [source];
  if (file.endsWith('.vue')) {
    const { script, scriptSetup, template } = parseComponent(source, { filename: file }).descriptor;
    scripts.splice(0, 1, script?.content ?? '', scriptSetup?.content ?? '');
    for (const [, value = ''] of template?.content.matchAll(/[!=]==? '([^']+)'/g) ?? []) values.add(value);
  }
  const visit = (node: ts.Node): void => {
    if (ts.isStringLiteral(node)) {
      const { parent } = node;
      if (ts.isLiteralTypeNode(parent) || ts.isCaseClause(parent) || isCompared(parent)) values.add(node.text);
    }
    ts.forEachChild(node, visit);
  };
  for (const script of scripts) visit(ts.createSourceFile('values.ts', script, ts.ScriptTarget.Latest, true));
  return values;
}
const isCompared = (node: ts.Node): boolean =>
  ts.isBinaryExpression(node) && /^[!=]==?$/.test(node.operatorToken.getText());

/**
 * The words of a file, in order; those within a value of others come after these.
 * @param file its name; components are told by their ending
 * @param values strings that programs compare, in all files
 */
export function wordsIn(file: string, source: string, values: ReadonlySet<string> = valuesIn(file, source)): Found[] {
  return placesIn(file, source).filter(
    ({ kind, words, isShown }) => kind !== 'string' || isShown || !values.has(words),
  );
}
function placesIn(file: string, source: string): Found[] {
  if (!file.endsWith('.vue')) return inScript(source, 0);
  const { descriptor } = parseComponent(source, { filename: file });
  const found: Found[] = [];
  for (const script of [descriptor.script, descriptor.scriptSetup])
    if (script) found.push(...inScript(script.content, script.loc.start.offset));
  if (descriptor.template?.ast) walk(descriptor.template.ast as unknown as Node, found);
  return found.sort((a, b) => a.start - b.start || b.end - a.end);
}

/** The part of the template syntax tree that is read here. Types of nodes: 1 element, 2 text, 5 value, 6 attribute, 7 directive. */
interface Node {
  readonly type: number;
  readonly name?: string;
  readonly tag?: string;
  readonly content?: string | Node;
  readonly children?: readonly Node[];
  readonly props?: readonly Node[];
  readonly value?: Node;
  readonly exp?: Node;
  readonly loc: {
    readonly start: { readonly offset: number };
    readonly end: { readonly offset: number };
    readonly source: string;
  };
}

function walk(node: Node, found: Found[]): void {
  for (const attribute of node.props ?? []) {
    if (attribute.type === 6 && attribute.value && SHOWN_ATTRIBUTES.has(attribute.name ?? '')) {
      const { start, end, source } = attribute.value.loc;
      const quoted = /^["']/.test(source) ? 1 : 0;
      const words = String(attribute.value.content);
      if (isWords(words))
        found.push({ start: start.offset + quoted, end: end.offset - quoted, words, kind: 'attribute', values: [] });
    } else if (attribute.type === 7 && attribute.exp && !['for', 'slot'].includes(attribute.name ?? ''))
      found.push(...inExpression(attribute.exp, attribute.name === 'on'));
  }
  let line: Node[] = [];
  const flush = (): void => {
    const words = line
      .map((part, index) => (part.type === 2 ? part.loc.source : `{${valueIndex(line, index)}}`))
      .join('');
    const text = words.replace(/\s+/g, ' ').trim();
    const [first, last] = [line[0], line.at(-1)];
    if (first && last && isWords(text) && line.some((part) => part.type === 2 && LETTER.test(part.loc.source))) {
      const lead = first.type === 2 ? first.loc.source.length - first.loc.source.trimStart().length : 0;
      const tail = last.type === 2 ? last.loc.source.length - last.loc.source.trimEnd().length : 0;
      found.push({
        ...{ start: first.loc.start.offset + lead, end: last.loc.end.offset - tail, words: text, kind: 'text' },
        values: line.filter(({ type }) => type === 5).map((part) => placeOf(part.content as Node)),
      });
    }
    line = [];
  };
  for (const child of node.children ?? []) {
    if (child.type === 2 || child.type === 5) line.push(child);
    else flush();
    if (child.type === 5) found.push(...inExpression(child.content as Node, false, true));
    else if (child.type === 1) walk(child, found);
  }
  flush();
}
const valueIndex = (line: readonly Node[], index: number): number =>
  line.slice(0, index).filter(({ type }) => type === 5).length;
const placeOf = ({ loc }: Node): [number, number] => [loc.start.offset, loc.end.offset];

function inExpression({ loc }: Node, isStatement: boolean, isShown = false): Found[] {
  return isStatement
    ? inScript(loc.source, loc.start.offset, isShown)
    : inScript(`(${loc.source})`, loc.start.offset - 1, isShown);
}

/** The words among the string literals of a script that begins at an offset. */
function inScript(source: string, offset: number, isShown = false): Found[] {
  const file = ts.createSourceFile('words.ts', source, ts.ScriptTarget.Latest, true);
  const found: Found[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isImportDeclaration(node) || ts.isTypeNode(node) || ts.isExportDeclaration(node)) return;
    if (ts.isStringLiteral(node) || ts.isNoSubstitutionTemplateLiteral(node) || ts.isTemplateExpression(node)) {
      const each = literal(node, offset);
      const wanted = PHRASE.test(each.words) || isShownPlace(node, isShown);
      if (wanted && isWords(each.words) && !isForPrograms(node)) found.push({ ...each, isShown });
    }
    ts.forEachChild(node, visit);
  };
  visit(file);
  return found;
}
type Literal = ts.StringLiteral | ts.NoSubstitutionTemplateLiteral | ts.TemplateExpression;

function literal(node: Literal, offset: number): Found {
  const place = { start: node.getStart() + offset, end: node.end + offset };
  if (!ts.isTemplateExpression(node)) return { ...place, words: node.text, kind: 'string', values: [] };
  return {
    ...place,
    words: node.head.text + node.templateSpans.map((span, index) => `{${index}}${span.literal.text}`).join(''),
    kind: 'template',
    values: node.templateSpans.map(({ expression }) => [expression.getStart() + offset, expression.end + offset]),
  };
}
/** Whether words stand where they are shown, so that also a single one counts. */
function isShownPlace(node: ts.Node, isShown: boolean): boolean {
  const { parent } = node;
  if (ts.isConditionalExpression(parent) && node !== parent.condition) return isShown || isShownPlace(parent, isShown);
  if (ts.isParenthesizedExpression(parent) || ts.isTemplateSpan(parent)) return isShownPlace(parent, isShown);
  if (ts.isBinaryExpression(parent) && parent.operatorToken.kind === ts.SyntaxKind.QuestionQuestionToken)
    return isShownPlace(parent, isShown);
  if (!ts.isPropertyAssignment(parent) || parent.initializer !== node) return false;
  if (SHOWN_NAMES.has(parent.name.getText())) return true;
  const table = parent.parent.parent;
  return ts.isVariableDeclaration(table) && /Record<[^>]*, string>/.test(table.type?.getText() ?? '');
}
/** Whether a literal is compared, names a member, or goes to a call that shows nothing. */
function isForPrograms(node: ts.Node): boolean {
  const { parent } = node;
  if (ts.isPropertyAssignment(parent) && parent.name === node) return true;
  if (ts.isElementAccessExpression(parent) || ts.isCaseClause(parent) || ts.isTypeNode(parent)) return true;
  if (isCompared(parent)) return true;
  if (ts.isTaggedTemplateExpression(parent)) return true;
  if (!ts.isCallExpression(parent) && !ts.isNewExpression(parent)) return false;
  const called = parent.expression;
  const name = ts.isPropertyAccessExpression(called) ? called.name.text : called.getText();
  return UNSHOWN_CALLS.test(name);
}

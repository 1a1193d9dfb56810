/** Compiles inline content to leaves: what may be left out, and the white space around it, is known before rendering. */
import type { Variable } from '../template/variable.js';
import { conditionsOf } from '../template/walk.js';
import { languageOf, listFormat } from '../values/intl.js';
import { error, type FindingData } from '../findings/finding.js';
import { readLine } from '../formats/markdown/line.js';
import { tagsIn } from '../formats/markdown/tags.js';
import type { Condition } from '../template/condition.js';
import type { Inline, Mark, SimpleMark } from '../template/document.js';
import { tint } from '../house/colour.js';
import { labelFromKey } from '../template/keys.js';
import { sameMark } from '../template/normalise.js';
import { safeUrl } from '../values/address.js';
import { isImageSource } from '../values/image.js';
import { textFormatter } from '../values/text.js';
import { asItIs, valueType, type Formatter } from '../values/index.js';
import type { LineHost } from './line-host.js';
import { weekdayBefore } from '../values/weekdays.js';
import type { Site } from './site.js';
import { escapeFixed, escapeHtml } from '../words/escape.js';
import type { Leaf, Line, MarkPiece, Origin, Read, Test, TextLeaf, ValueLeaf } from './program.js';
import { declarationOf } from './scope.js';

const MARK_TAGS: Readonly<Record<SimpleMark, readonly [open: string, close: string]>> = {
  bold: ['<strong>', '</strong>'],
  italic: ['<em>', '</em>'],
  underline: ['<u>', '</u>'],
  strike: ['<s>', '</s>'],
  code: ['<code style="font-family:Consolas,Menlo,monospace;font-size:0.93em">', '</code>'],
};

/** Languages that set a space before ; : ! ? */
const SPACING_LANGUAGES = new Set(['fr']);

/** Compiles the inline nodes of one line into leaves, with the marks and joins around them. */
export class LineCompiler {
  private readonly pieces: { mark: Mark; piece: MarkPiece }[] = [];

  constructor(
    private readonly compiler: LineHost,
    private readonly site: Site,
  ) {}

  /** Compiles a line. `path` is that of its node; children are its inline nodes. */
  compile(nodes: readonly Inline[] = [], path: readonly number[] = this.site.path): Line {
    const leaves = nodes.flatMap((node, index): Leaf[] => this.leaf(node, [...path, index], nodes[index - 1]));
    leaves.forEach((leaf, index) => {
      if (leaf.kind === 'text' && (leaf.blank || leaf.trail !== ''))
        (leaf as { defer: boolean }).defer = index === leaves.length - 1 || mayVanish(leaves[index + 1] as Leaf);
    });
    return {
      leaves,
      spacesPunctuation: SPACING_LANGUAGES.has(languageOf(this.site.unit.locale)),
      plain: leaves.every(isPlain),
    };
  }

  private leaf(node: Inline, path: readonly number[], before: Inline | undefined): Leaf[] {
    const marks = node.marks ?? [];
    const conditions = conditionsOf(node);
    const tests = conditions.flatMap((each) => this.test(each, path));
    const base = {
      tests: [...this.site.tests, ...tests],
      marks: marks.flatMap((mark) => this.piece(mark, path)),
      origin: this.origin(path, conditions),
    };
    switch (node.type) {
      case 'text':
        return [textLeaf(node.text, base)];
      case 'placeholder':
        return [this.placeholder(node.attrs, path, base, before)];
      case 'hardBreak':
        return [{ kind: 'break', ...base }];
      case 'image': {
        if (!isImageSource(node.attrs.src))
          this.report({ code: 'unsafe-link', why: 'image', href: node.attrs.src }, path);
        return [
          {
            kind: 'image',
            src: isImageSource(node.attrs.src) ? node.attrs.src : '',
            alt: this.compile(node.attrs.alt, path),
            style: imageStyle(undefined),
            ...(node.attrs.width ? { width: node.attrs.width } : {}),
            ...base,
          },
        ];
      }
      case 'inlineInclusion':
        return this.compiler.splice(node.attrs.name, path, { ...this.site, path }, base);
      case 'inlineComment':
        return [];
    }
  }

  private test(condition: Condition, path: readonly number[]): Test[] {
    const bound = this.compiler.binder.test(condition, this.site, path);
    if (bound?.kind === 'list' && !condition.not) {
      this.report({ code: 'repeat-in-line', list: condition.of }, path);
      return [];
    }
    return bound ? [bound] : [];
  }

  private report(
    data: FindingData<'unsafe-link' | 'repeat-in-line' | 'unknown-variable' | 'unknown-view' | 'value-loop'>,
    path: readonly number[],
  ): void {
    this.compiler.findings.push(error(data, this.site.unit.place({ path })));
  }

  private origin(path: readonly number[], conditions: readonly Condition[], variable?: string): Origin {
    const wordingOf = this.site.wordings.at(-1);
    return {
      text: this.site.unit.name,
      path,
      blocks: this.site.blocks,
      conditions: [...this.site.conditions, ...conditions],
      ...(variable ? { variable } : {}),
      ...(wordingOf ? { wordingOf } : {}),
    };
  }

  private piece(mark: Mark, path: readonly number[]): MarkPiece[] {
    if (mark.type === 'phrase') return [];
    const known = this.pieces.find((each) => sameMark(each.mark, mark));
    if (known) return [known.piece];
    const piece = this.makePiece(mark, path);
    this.pieces.push({ mark, piece });
    return [piece];
  }

  private makePiece(mark: Exclude<Mark, { type: 'phrase' }>, path: readonly number[]): MarkPiece {
    switch (mark.type) {
      case 'link':
        return this.linkPiece(mark.attrs.href, path);
      case 'colour':
      case 'highlight':
        return this.colourPiece(mark.type, mark.attrs.name);
      case 'language': {
        const lang = escapeHtml(mark.attrs.lang);
        return { open: `<span lang="${lang}">`, close: '</span>' };
      }
      default:
        return { open: MARK_TAGS[mark.type][0], close: MARK_TAGS[mark.type][1] };
    }
  }

  /** A colour that the house has not leaves the words as they are; a check says so. */
  private colourPiece(type: 'colour' | 'highlight', name: string): MarkPiece {
    const { colours } = this.compiler.house.style;
    const colour = Object.hasOwn(colours, name) ? colours[name] : undefined;
    if (!colour) return { open: '', close: '' };
    const kind = type === 'colour' ? 'c' : 'h';
    this.compiler.colours.add(`${kind}-${name}`);
    const style = type === 'colour' ? `color:${colour.light}` : `background-color:${tint(colour.light)}`;
    return { open: `<span class="${kind}-${name}" style="${style}">`, close: '</span>' };
  }

  private linkPiece(href: string, path: readonly number[]): MarkPiece {
    const style = ` style="color:${this.compiler.house.style.link.light};text-decoration:underline">`;
    const line = this.target(href, path);
    if (!line) return { open: '', close: '' };
    const fixed = tagsIn(href).length === 0;
    return { open: fixed ? `<a href="${escapeHtml(href)}"${style}` : style, close: '</a>', href: line };
  }

  /** What a link leads to; undefined and a finding for what no message may link to. */
  target(href: string, path: readonly number[]): Line | undefined {
    const tags = tagsIn(href);
    // Whatever the value, the scheme is the author's: only a tag at the very beginning may bring one along.
    const scheme = /^[a-z][a-z0-9+.-]*:/i.exec(href)?.[0].toLowerCase() ?? '';
    const safe =
      tags.length === 0
        ? safeUrl(href) !== undefined
        : href.startsWith('{{') || ['http:', 'https:', 'mailto:', 'tel:'].includes(scheme);
    if (!safe) this.report({ code: 'unsafe-link', why: 'written', href }, path);
    return safe || tags.length > 0 ? this.compile(readLine(href), path) : undefined;
  }

  private placeholder(
    attrs: { readonly name: string; readonly view: string },
    path: readonly number[],
    base: Omit<TextLeaf, 'kind' | 'text'> | { tests: readonly Test[]; marks: readonly MarkPiece[]; origin: Origin },
    before: Inline | undefined,
  ): Leaf {
    const { name, view } = attrs;
    const common = { tests: base.tests, marks: base.marks };
    const read = this.compiler.binder.read(name, this.site);
    if (!read) {
      this.report(
        name.startsWith('house.')
          ? { code: 'unknown-variable', why: 'fact', name: name.slice(6) }
          : { code: 'unknown-variable', why: 'variable', name },
        path,
      );
      return textLeaf(`[${labelFromKey(name)}]`, { ...common, origin: base.origin });
    }
    const origin = { ...base.origin, variable: name };
    const format = this.formatter(read, view);
    const declaration = declarationOf(read);
    const label =
      read.from === 'slot'
        ? read.slot.label
        : (declaration?.label ?? labelFromKey(read.key.split('.').at(-1) ?? read.key));
    const stands = (): TextLeaf => textLeaf(`[${label}]`, { ...common, origin });
    if (!format) {
      this.report(unknownView(name, view, declaration), path);
      return stands();
    }
    const weekday =
      declaration?.type === 'date' && WITHOUT_WEEKDAY.has(view) && before?.type === 'text'
        ? weekdayBefore(before.text, this.site.unit.locale)
        : undefined;
    const leaf: ValueLeaf = {
      kind: 'value',
      ...common,
      origin,
      read,
      format,
      asItIs: format === asItIs,
      label,
      required: declaration?.required === true && declaration.value === undefined,
      fallback: declaration?.fallback ?? '',
      breaks: declaration?.type === 'paragraphs',
      ...(declaration?.type === 'image' ? { imageStyle: imageStyle(declaration.max_width) } : {}),
      ...(weekday === undefined ? {} : { weekday }),
    };
    if (!declaration || valueType(declaration.type).governs !== 'option' || view !== '') return leaf;
    if (!this.site.wordings.includes(name)) return { ...leaf, ...this.wordings(name, declaration, path) };
    this.report({ code: 'value-loop', why: 'wording', name }, path);
    return stands();
  }

  /** The lines of a choice's options, by key, and how several are joined. */
  private wordings(name: string, declaration: Variable, path: readonly number[]): Pick<ValueLeaf, 'wordings' | 'join'> {
    const inner = new LineCompiler(this.compiler, {
      ...this.site,
      wordings: [...this.site.wordings, name],
      tests: [],
      path,
    });
    const wordings = new Map(
      (declaration.options ?? []).flatMap((option) =>
        option.wording?.length ? [[option.key, inner.compile(option.wording, path)] as const] : [],
      ),
    );
    return { wordings, ...(declaration.type === 'choices' ? { join: listFormat(this.site.unit.locale) } : {}) };
  }

  private formatter(read: Read, view: string): Formatter | undefined {
    const { locale } = this.site.unit;
    if (read.from === 'recipient' || read.from === 'sender') return textFormatter(view, locale);
    const variable = declarationOf(read);
    return variable && valueType(variable.type).formatter(variable, view, locale);
  }
}

function unknownView(name: string, view: string, declaration: Variable | undefined): FindingData<'unknown-view'> {
  if (declaration?.type === 'list' && view === '') return { code: 'unknown-view', why: 'list-plain' };
  const known = declaration ? valueType(declaration.type).views(declaration) : [];
  return { code: 'unknown-view', why: 'missing', name, view, known };
}

/** How an image is shown: never wider than the message, nor than `width` pixels. */
const imageStyle = (width: number | undefined): string =>
  `max-width:${width === undefined ? '100%' : `min(100%, ${width}px)`};height:auto;border:0`;

/** A leaf of fixed text. */
export function textLeaf(
  text: string,
  base: { readonly tests: readonly Test[]; readonly marks: readonly MarkPiece[]; readonly origin: Origin },
): TextLeaf {
  const lead = text.slice(0, text.length - text.trimStart().length);
  const blank = lead.length === text.length;
  const trail = blank ? '' : text.slice(text.trimEnd().length);
  const core = text.slice(lead.length, text.length - trail.length);
  return {
    kind: 'text',
    text,
    html: escapeFixed(text),
    lead,
    core,
    coreHtml: escapeFixed(core),
    trail,
    blank,
    defer: false,
    tests: base.tests,
    marks: base.marks,
    origin: base.origin,
  };
}

const isPlain = (leaf: Leaf): boolean =>
  leaf.tests.length === 0 &&
  leaf.marks.length === 0 &&
  (leaf.kind === 'text' ||
    (leaf.kind === 'value' &&
      leaf.wordings === undefined &&
      leaf.weekday === undefined &&
      leaf.imageStyle === undefined));

const mayVanish = (leaf: Leaf): boolean =>
  leaf.tests.length > 0 ||
  leaf.kind === 'splice' ||
  (leaf.kind === 'value' && (!leaf.required || leaf.wordings !== undefined));

const WITHOUT_WEEKDAY = new Set(['', 'short', 'medium', 'long', 'day', 'iso']);

/**
 * Finds every text that a template needs and gathers their declarations; reports loops, depth and names
 * without a text (engine notes, section 4).
 */
import { advice, error, type Finding, type Place, type FindingData } from '../findings/finding.js';
import { isZone } from '../values/zone.js';
import type { NamedDocument, TextDocument } from '../template/document.js';
import type { Variable } from '../template/variable.js';
import type { CompileOptions } from './options.js';
import type { House } from '../house/house.js';
import { checkDeclaration, clash } from './slots.js';
import { fitsLine, inclusionsOf, MAX_INCLUDED, sizeOf, MAX_INCLUSION_DEPTH, MAX_INCLUSIONS } from './inclusions.js';
import { readsShadow, TextUnit, type Declaration } from './texts.js';

/** A template with everything it includes. */
export interface Linked {
  readonly own: TextUnit;
  /** Every text that is used, the template first. */
  readonly units: ReadonlyMap<string, TextUnit>;
  /** What all of them declare, in reading order; variables that a repeat's columns shadow are not among them. */
  readonly declarations: readonly Declaration[];
  /** The house's header; and behind the body the signature, if the body brings none, and the house's footer. */
  readonly before: readonly TextUnit[];
  readonly after: readonly TextUnit[];
  /** Names of texts that are wanted and that the library has not. */
  readonly missing: ReadonlySet<string>;
}

/** Links a template; what is wrong is added to `findings`. */
export function link(
  named: NamedDocument,
  options: CompileOptions,
  house: House,
  today: string,
  findings: Finding[],
): Linked {
  return new Linker(named, options, house, today, findings).linked();
}

class Linker {
  private readonly units = new Map<string, TextUnit>();
  private readonly declarations: Declaration[] = [];
  private readonly missing = new Set<string>();
  private readonly holidays: ReadonlySet<string>;
  private inclusions = 0;
  private included = 0;

  constructor(
    private readonly named: NamedDocument,
    private readonly options: CompileOptions,
    private readonly house: House,
    private readonly today: string,
    private readonly findings: Finding[],
  ) {
    this.holidays = new Set(house.holidays);
  }

  linked(): Linked {
    const own = this.unit(this.named.name, this.named.document) as TextUnit;
    if (own.kind !== 'message') {
      this.link(own, 0, [own.name], new Map());
      return { own, units: this.units, declarations: this.declarations, before: [], after: [], missing: this.missing };
    }
    const before = this.around(own, this.housed('header'));
    this.link(own, 0, [own.name], new Map());
    const after = [...this.around(own, this.signatureAfter(own)), ...this.around(own, this.housed('footer'))];
    return { own, units: this.units, declarations: this.declarations, before, after, missing: this.missing };
  }

  /** Links a text that stands around the body of a message. */
  private around(own: TextUnit, unit: TextUnit | undefined): TextUnit[] {
    if (!unit || unit === own) return [];
    this.link(unit, 1, [own.name, unit.name], new Map());
    return [unit];
  }

  /** The block that the house puts before or behind every message. */
  private housed(place: 'header' | 'footer'): TextUnit | undefined {
    const name = this.house.style[place];
    if (name === undefined) return undefined;
    const unit = this.unit(name, this.units.get(name)?.document ?? this.options.library.get(name));
    if (!unit) this.miss({ code: 'unknown-block', why: 'of-house', name });
    return unit;
  }

  private miss(data: Extract<FindingData<'unknown-block'>, { name: string }>, place: Place = {}): void {
    this.missing.add(data.name);
    this.findings.push(error(data, place));
  }

  /** The text of that name, once; undefined and a finding if there is none. */
  private unit(name: string, document: TextDocument | undefined): TextUnit | undefined {
    const known = this.units.get(name);
    if (known) return known;
    if (!document) return undefined;
    const unit = new TextUnit(
      name,
      document,
      this.locale(document, name),
      this.house,
      this.holidays,
      this.findings,
      this.units.size === 0,
    );
    this.units.set(name, unit);
    const { timezone } = document.attrs.front;
    if (timezone !== undefined && !isZone(timezone))
      this.findings.push(
        error({ code: 'bad-value', why: 'zone', zone: timezone }, unit.place({ attribute: 'timezone' })),
      );
    for (const variable of unit.variables.values())
      checkDeclaration(variable, unit, { today: this.today, locale: unit.locale }, this.findings);
    // Wrong expressions are reported whether or not the value is used.
    for (const variable of document.attrs.variables) {
      unit.expression(variable);
      for (const each of variable.columns ?? []) unit.columnExpression(variable, each);
    }
    return unit;
  }

  private locale(document: TextDocument, name: string): string {
    const wanted = document.attrs.front.locale ?? this.house.locale;
    try {
      if (Intl.DateTimeFormat.supportedLocalesOf(wanted).length > 0) return wanted;
    } catch {
      // A malformed tag is as unknown as one without data.
    }
    this.findings.push(
      advice(
        { code: 'unknown-locale', locale: wanted, instead: this.house.locale },
        this.units.size === 0 ? { attribute: 'locale' } : { text: name, attribute: 'locale' },
      ),
    );
    return this.house.locale;
  }

  /** Gathers the declarations of a text and of what it includes; reports loops, depth and names without a text. */
  private link(unit: TextUnit, depth: number, chain: readonly string[], shadows: ReadonlyMap<string, Variable>): void {
    for (const variable of unit.variables.values()) {
      const shadow = shadows.get(variable.key);
      if (shadow) {
        const attribute = clash(shadow, variable);
        if (attribute)
          this.findings.push(
            error(
              { code: 'type-clash', why: 'column', key: variable.key, attribute, other: unit.name },
              unit.place({ variable: variable.key, attribute }),
            ),
          );
      } else if (!readsShadow(unit, variable, shadows)) this.declarations.push({ variable, unit, depth });
    }
    for (const { name, path, inline, repeats } of inclusionsOf(unit.document)) {
      this.inclusions += 1;
      const at = unit.place({ path });
      if (chain.includes(name)) {
        this.findings.push(error({ code: 'block-loop', chain: [...chain.slice(chain.indexOf(name)), name] }, at));
        continue;
      }
      if (depth + 1 > MAX_INCLUSION_DEPTH || this.inclusions > MAX_INCLUSIONS) {
        const data: FindingData<'too-deep'> =
          this.inclusions > MAX_INCLUSIONS
            ? { code: 'too-deep', why: 'many', most: MAX_INCLUSIONS }
            : { code: 'too-deep', why: 'nested', most: MAX_INCLUSION_DEPTH, chain };
        if (!this.findings.some((finding) => finding.code === 'too-deep')) this.findings.push(error(data, at));
        continue;
      }
      const included = this.unit(name, this.units.get(name)?.document ?? this.options.library.get(name));
      if (!included) {
        this.miss({ code: 'unknown-block', why: 'missing', name }, at);
        continue;
      }
      this.included += sizeOf(included.document);
      if (this.included > MAX_INCLUDED) {
        if (!this.findings.some((finding) => finding.code === 'too-deep'))
          this.findings.push(error({ code: 'too-deep', why: 'large' }, at));
        continue;
      }
      if (inline && !fitsLine(included.document)) this.findings.push(error({ code: 'block-in-line', name }, at));
      const inner = new Map(shadows);
      for (const repeat of repeats)
        for (const each of unit.variables.get(repeat.of)?.columns ?? []) inner.set(each.key, each);
      this.link(included, depth + 1, [...chain, name], inner);
    }
  }

  /** The signature that stands after the body: the one that is named, else the sender's if the body includes none. */
  private signatureAfter(own: TextUnit): TextUnit | undefined {
    const wanted = own.document.attrs.front.signature;
    if (wanted === 'none') return undefined;
    const name = wanted ?? (this.includesSignature(own) ? undefined : this.options.senderSignature);
    if (name === undefined) return undefined;
    const unit = this.unit(name, this.units.get(name)?.document ?? this.options.library.get(name));
    const path = { attribute: 'signature' };
    if (!unit) this.miss({ code: 'unknown-block', why: 'missing-signature', name }, path);
    else if (unit.kind !== 'signature')
      this.findings.push(error({ code: 'unknown-block', why: 'no-signature', name }, path));
    else return unit;
    return undefined;
  }

  private includesSignature(own: TextUnit): boolean {
    return [...this.units.values()].some((unit) => unit !== own && unit.kind === 'signature');
  }
}

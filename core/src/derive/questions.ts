/** The variables of a derived template. Places whose values agree in all mails share one variable. */
import { condition, type Condition } from '../template/condition.js';
import type { Inline } from '../template/document.js';
import { keyFromLabel } from '../template/keys.js';
import type { Option, Variable } from '../template/variable.js';
import { dateFormula, productFormula, thresholdFormula, type Known, type Split, type Values } from './formulas.js';
import { placeholder, withCondition } from './inline.js';
import { lacksYear, type Kind } from './kinds.js';
import { labelOfChoice, labelOfText, optionsFor } from './labels.js';
import type { MailContent } from './mail.js';

type Row = Readonly<Record<string, string>>;
/** A variable, and its value in each mail by the mail's index. */
export interface DerivedQuestion {
  variable: Variable;
  readonly answers: Map<number, string | number | boolean | readonly Row[]>;
  /** In how many places it is used. */
  places: number;
}
/** The label of a new variable, and whether every mail has a value for it. */
export interface NewQuestion {
  readonly label: string;
  readonly required: boolean;
}

/** Recipient fields; no variable gets one of these keys. */
export const RECIPIENT_FIELDS = ['email', 'name', 'first_name', 'last_name'] as const;

/** Collects the variables. Every method that returns content or a condition counts one more place for its variable. */
export class Questions {
  readonly all: DerivedQuestion[] = [];
  private readonly keys = new Set<string>(['count', 'recipient', 'sender', 'house', 'file', ...RECIPIENT_FIELDS]);

  constructor(
    private readonly mails: readonly MailContent[],
    private readonly locale: string,
  ) {}

  /** A placeholder for the field of the recipient or sender that equals the text in every mail; undefined if none does. */
  field(texts: ReadonlyMap<number, string>): Inline | undefined {
    const [first = 0] = texts.keys();
    for (const side of ['recipient', 'sender'] as const) {
      // With one sender, the name may as well be fixed text.
      if (side === 'sender' && new Set(texts.values()).size === 1) continue;
      const fields = Object.keys(this.mails[first]?.[side] ?? {}).sort();
      const field = fields.find((name) => [...texts].every(([mail, text]) => this.mails[mail]?.[side][name] === text));
      if (field !== undefined) return placeholder(`${side}.${field}`);
    }
    return undefined;
  }

  /** Placeholders for a typed value: of a variable with the same values, of a formula, or of a new variable. */
  value(kind: Kind, { label, required }: NewQuestion): Inline[] {
    const question = this.use(
      this.sameValue(kind) ?? this.calculated(kind, label) ?? this.newValue(kind, label, required),
    );
    return kind.written.map((part): Inline =>
      'words' in part ? { type: 'text', text: part.words } : placeholder(question.variable.key, part.view),
    );
  }
  private newValue({ type, attributes, values }: Kind, label: string, required: boolean): DerivedQuestion {
    const isNamed = type !== 'date' || label === 'Date' || /(?:date|day|datum|tag)$/i.test(label);
    return this.add(
      { type, ...attributes, ...(required ? { required } : {}) },
      isNamed ? label : `${label} date`,
      values,
    );
  }
  private sameValue(kind: Kind): DerivedQuestion | undefined {
    const { type, attributes, values } = kind;
    if (lacksYear(kind)) {
      // Which year a date without one means is only a guess.
      const withoutYear = (day: unknown): string => String(day).slice(5);
      return this.all.find(
        ({ variable, answers }) =>
          variable.type === 'date' &&
          [...values].every(([mail, day]) => withoutYear(answers.get(mail)) === withoutYear(day)),
      );
    }
    const found = this.all.find(
      ({ variable, answers }) =>
        variable.type === type &&
        variable.currency === attributes.currency &&
        variable.decimals === attributes.decimals &&
        variable.grouping === attributes.grouping &&
        agree(answers, values),
    );
    if (found) for (const [mail, value] of values) found.answers.set(mail, value);
    return found;
  }
  private calculated({ type, attributes, values }: Kind, label: string): DerivedQuestion | undefined {
    const formula =
      type === 'date'
        ? dateFormula(values, this.known('date'))
        : type === 'number' || type === 'money'
          ? productFormula(values, this.numbers())
          : undefined;
    return formula === undefined ? undefined : this.add({ type, ...attributes, value: formula }, label, values);
  }
  /** Variables of some types that are asked: formulas use no other formulas. */
  private known(...types: readonly Variable['type'][]): Known[] {
    return this.all
      .filter(({ variable }) => types.includes(variable.type) && variable.value === undefined)
      .map(({ variable, answers }) => ({ key: variable.key, values: answers }));
  }
  private readonly numbers = (): Known[] => this.known('number', 'money');

  /** A placeholder for words that a number decides: “ticket” for 1, “tickets” for others; undefined if none does. */
  agreeing(texts: ReadonlyMap<number, string>): Inline | undefined {
    const rules = new Intl.PluralRules(this.locale);
    for (const question of this.all) {
      const { variable, answers } = question;
      if (variable.type !== 'number' || ![...texts.keys()].every((mail) => answers.has(mail))) continue;
      const forms = mapping([...texts].map(([mail, text]) => [rules.select(Number(answers.get(mail))), text]));
      const other = forms?.get('other');
      if (!forms || forms.size < 2 || other === undefined) continue;
      const view = keyFromLabel(other, new Set(['counted', 'ordinal', ...Object.keys(variable.forms ?? {})]));
      question.variable = { ...variable, forms: { ...variable.forms, [view]: Object.fromEntries(forms) } };
      return placeholder(this.use(question).variable.key, view);
    }
    return undefined;
  }

  /**
   * Content for one of a few wordings: conditional on a choice that already tells the same mails apart, or the
   * placeholder of a new choice.
   * @param wordings the content of each text
   */
  choice(
    texts: ReadonlyMap<number, string>,
    wordings: ReadonlyMap<string, readonly Inline[]>,
    { label, required }: NewQuestion,
  ): readonly Inline[] {
    const same = this.choiceLike(texts);
    if (same)
      return [...wordings].flatMap(([text, inline]) => {
        const option = same.options.get(text);
        return inline.map((node) => withCondition(node, condition(same.key, option === undefined ? [] : [option])));
      });
    const ordered = [...wordings].sort(([a], [b]) => (a < b ? -1 : 1));
    const options = optionsFor(ordered.map(([text]) => text)).map((option, at): Option => ({
      ...option,
      wording: ordered[at]?.[1] ?? [],
    }));
    const keys = new Map(ordered.map(([text], at) => [text, options[at]?.key ?? '']));
    const answers = new Map([...texts].map(([mail, text]) => [mail, keys.get(text) ?? '']));
    const type = { type: 'choice' as const, options, ...(required ? { required } : {}) };
    return [placeholder(this.use(this.add(type, label || labelOfChoice(options), answers)).variable.key)];
  }
  /** A choice that tells the same mails apart, with its option for each value. */
  private choiceLike(
    values: Values,
  ): { readonly key: string; readonly options: ReadonlyMap<unknown, string> } | undefined {
    for (const question of this.all) {
      const { variable, answers } = question;
      if (variable.type !== 'choice' || ![...values.keys()].every((mail) => answers.has(mail))) continue;
      const pairs = [...values].map(([mail, value]) => [value, String(answers.get(mail))] as const);
      const options = mapping(pairs);
      const back = mapping(pairs.map(([value, option]) => [option, value]));
      if (options && back && options.size > 1) return { key: this.use(question).variable.key, options };
    }
    return undefined;
  }

  /** A placeholder for free text. */
  text(texts: ReadonlyMap<number, string>, { label, required }: NewQuestion): Inline {
    const same = this.all.find(({ variable, answers }) => variable.type === 'text' && agree(answers, texts));
    const question = same ?? this.add({ type: 'text', ...(required ? { required } : {}) }, label, texts);
    for (const [mail, text] of texts) question.answers.set(mail, text);
    return placeholder(this.use(question).variable.key);
  }

  /** A new list. @returns its key */
  list(rows: ReadonlyMap<number, readonly Row[]>, columns: readonly Variable[], label: string): string {
    return this.use(this.add({ type: 'list', columns }, label, rows)).variable.key;
  }

  /**
   * A condition that tells apart where something is and where it is not: options of a choice, a yes or no, a threshold
   * of a number, or a new yes or no.
   * @param text what is there, for a label
   */
  conditionFor(split: Split, text: string): Condition {
    return this.byChoice(split) ?? this.byYesNo(split) ?? this.newYesNo(split, text);
  }
  private byChoice({ yes, no }: Split): Condition | undefined {
    for (const question of this.all) {
      const { variable, answers } = question;
      if (variable.type !== 'choice' || ![...yes, ...no].every((mail) => answers.has(mail))) continue;
      const optionsIn = (mails: ReadonlySet<number>): Set<string> =>
        new Set([...mails].map((mail) => String(answers.get(mail))));
      const [kept, left] = [optionsIn(yes), optionsIn(no)];
      if (kept.size > 0 && left.size > 0 && ![...left].some((option) => kept.has(option)))
        return condition(this.use(question).variable.key, [...kept].sort());
    }
    return undefined;
  }
  private byYesNo({ yes, no }: Split): Condition | undefined {
    for (const question of this.all) {
      const { variable, answers } = question;
      if (variable.type !== 'yes-no') continue;
      for (const not of [false, true]) {
        /** The share of mails that have an answer; 0 if any answer is wrong. */
        const answered = (mails: ReadonlySet<number>, expected: boolean): number => {
          const known = [...mails].filter((mail) => answers.has(mail));
          return known.every((mail) => answers.get(mail) === expected) ? known.length / mails.size : 0;
        };
        // A formula must decide all mails; an answer may be added for the mails that were not asked.
        const least = variable.value === undefined ? 0.5 : 1;
        if (answered(yes, !not) < least || answered(no, not) < least) continue;
        for (const mail of yes) answers.set(mail, !not);
        for (const mail of no) answers.set(mail, not);
        return condition(this.use(question).variable.key, [], not);
      }
    }
    return undefined;
  }
  private newYesNo(split: Split, text: string): Condition {
    const formula = thresholdFormula(split, this.numbers());
    const answers = new Map([...split.yes, ...split.no].map((mail) => [mail, split.yes.has(mail)]));
    const type = { type: 'yes-no' as const, ...(formula === undefined ? {} : { value: formula }) };
    return condition(this.use(this.add(type, labelOfText(text), answers)).variable.key);
  }

  /** Conditions for passages of which each mail has exactly one, in their order. */
  alternatives(passages: readonly { readonly mails: ReadonlySet<number>; readonly text: string }[]): Condition[] {
    const numbers = new Map(passages.flatMap(({ mails }, at) => [...mails].map((mail) => [mail, at] as const)));
    const same = this.choiceLike(numbers);
    if (same) return passages.map((_, at) => condition(same.key, [same.options.get(at) ?? '']));
    const options = optionsFor(passages.map(({ text }) => text));
    const answers = new Map([...numbers].map(([mail, at]) => [mail, options[at]?.key ?? '']));
    const question = this.add({ type: 'choice', options, required: true }, labelOfChoice(options), answers);
    question.places = passages.length;
    return options.map(({ key }) => condition(question.variable.key, [key]));
  }

  private add(
    variable: Omit<Variable, 'key'>,
    label: string,
    answers: ReadonlyMap<number, string | number | boolean | readonly Row[]>,
  ): DerivedQuestion {
    const key = keyFromLabel(label, this.keys);
    this.keys.add(key);
    // Values come from the recipient's column with the same key, so that a sample set can fill the template.
    const source = variable.value === undefined ? { from: `recipient.${key}` } : {};
    const question = { variable: { key, ...variable, label, ...source }, answers: new Map(answers), places: 0 };
    this.all.push(question);
    return question;
  }
  private use(question: DerivedQuestion): DerivedQuestion {
    question.places += 1;
    return question;
  }
}

/** Pairs as a map; undefined if one key has two different values. */
function mapping<K, V>(pairs: readonly (readonly [K, V])[]): Map<K, V> | undefined {
  const found = new Map<K, V>();
  for (const [key, value] of pairs) {
    if (found.has(key) && found.get(key) !== value) return undefined;
    found.set(key, value);
  }
  return found;
}
/**
 * True if both have the same values for all mails that both know, and these are enough to tell: they vary, or they are
 * all values.
 */
function agree(known: Values, values: Values): boolean {
  const both = [...values.keys()].filter((mail) => known.has(mail));
  if (both.length === 0 || both.some((mail) => known.get(mail) !== values.get(mail))) return false;
  return both.length === values.size || new Set(both.map((mail) => values.get(mail))).size > 1;
}

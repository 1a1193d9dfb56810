/** Outcomes of a text's messages, told apart by version, answer, passage, weekday and time of day. */
import type { CountedShare, OutcomeGroup, OutcomesBy } from '@vocabula/contract';
import { wallAt, weekdayNumber, type NamedDocument, type Program, type Variable } from '@vocabula/core';
import { KeptPassages, passagesOf, type PassageColumn } from '@vocabula/core/proof';
import { answerWords, questionsOf } from './question-counts.js';
import { OUTCOMES, type Outcome, type SentMessage, type traceOf } from './sent-messages.js';

/** Days in the order of a week, by their number from Sunday. */
const DAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday'];
/** Spans of a day: the hour at which each begins. */
const SPANS: readonly (readonly [from: number, label: string])[] = [
  [0, 'before 9'],
  [9, '9 to 12'],
  [12, '12 to 14'],
  [14, '14 to 17'],
  [17, 'after 17'],
];

export class OutcomeGroups {
  private readonly tables = new Map<
    string,
    { readonly by: OutcomesBy['by']; readonly about: string; readonly groups: Map<string, Group> }
  >();
  private readonly questions: readonly Variable[];
  private readonly passages = new Map<
    Program,
    { readonly columns: readonly PassageColumn[]; readonly kept: KeptPassages }
  >();

  /**
   * @param texts The text and its blocks in their current versions: their questions are told apart.
   * @param zone  Zone of the weekdays and times of day.
   */
  constructor(
    texts: readonly NamedDocument[],
    private readonly zone: string,
  ) {
    this.questions = questionsOf(texts).filter(
      ({ type, options }) => type === 'yes-no' || (type === 'choice' && options),
    );
  }

  /** Counts one message. Messages of which nothing can be known are left out. */
  add(message: SentMessage, trace: ReturnType<typeof traceOf>): void {
    if (Object.keys(message.became).length === 0) return;
    const put = (by: OutcomesBy['by'], about: string, label: string): void => this.group(by, about, label).add(message);
    if (message.number !== null) put('version', '', `version ${message.number}`);
    for (const variable of this.questions) {
      const answer = message.answers[variable.key] ?? variable.default;
      if (answer !== undefined && answer !== '')
        put('answer', variable.label ?? variable.key, answerWords(variable, answer));
    }
    const { columns, kept } = this.passagesIn(message.program);
    const flags = kept.of(trace);
    for (const [at, { label }] of columns.entries()) put('passage', label, flags[at] === 1 ? 'kept' : 'left out');
    const wall = wallAt(Date.parse(message.at), this.zone);
    put('weekday', '', DAYS[(weekdayNumber(wall.slice(0, 10)) + 6) % 7] ?? '');
    const hour = Number(wall.slice(11, 13));
    put('time of day', '', SPANS.findLast(([from]) => hour >= from)?.[1] ?? '');
  }

  /** Tables of at least two groups: with one there is nothing to tell apart. */
  result(): OutcomesBy[] {
    const order = [...DAYS, ...SPANS.map(([, label]) => label)];
    return [...this.tables.values()]
      .filter(({ groups }) => groups.size > 1)
      .map(({ by, about, groups }) => ({
        ...{ by, about },
        groups: [...groups]
          .map(([label, group]): OutcomeGroup => ({ label, ...group.counted() }))
          .sort(
            (a, b) =>
              order.indexOf(a.label) - order.indexOf(b.label) ||
              a.label.localeCompare(b.label, 'en', { numeric: true }),
          ),
      }));
  }

  private group(by: OutcomesBy['by'], about: string, label: string): Group {
    const key = `${by} ${about}`;
    let table = this.tables.get(key);
    if (!table) this.tables.set(key, (table = { by, about, groups: new Map() }));
    let group = table.groups.get(label);
    if (!group) table.groups.set(label, (group = new Group()));
    return group;
  }
  private passagesIn(program: Program) {
    let found = this.passages.get(program);
    if (!found) {
      const columns = passagesOf(program);
      this.passages.set(program, (found = { columns, kept: new KeptPassages(columns) }));
    }
    return found;
  }
}

/** Counts of one group of messages. */
class Group {
  private messages = 0;
  private readonly counts = new Map<Outcome, { successes: number; trials: number }>();

  add({ became }: SentMessage): void {
    this.messages += 1;
    for (const outcome of OUTCOMES) {
      const came = became[outcome];
      if (came === undefined) continue;
      const count = this.counts.get(outcome) ?? { successes: 0, trials: 0 };
      this.counts.set(outcome, { successes: count.successes + (came ? 1 : 0), trials: count.trials + 1 });
    }
  }
  counted(): Omit<OutcomeGroup, 'label'> {
    const of = (outcome: Outcome): CountedShare => this.counts.get(outcome) ?? { successes: 0, trials: 0 };
    return {
      messages: this.messages,
      opened: of('opened'),
      followed: of('followed'),
      answered: of('answered'),
      bounced: of('bounced'),
    };
  }
}

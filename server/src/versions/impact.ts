/** What publishing a block, or the house, does to the messages of the templates that depend on it. */
import { setImmediate as turn } from 'node:timers/promises';
import { senderFields, type Dependents, type TemplateImpact } from '@vocabula/contract';
import { dayIn, sameValue, signatureFor, type Message, type Program } from '@vocabula/core';
import { fillingOfRow, hardCases, Impact, type Filling } from '@vocabula/core/proof';
import { and, asc, eq, isNull } from 'drizzle-orm';
import { closure, rowOf } from '../catalogue/visible-texts.js';
import { summaryOf } from '../catalogue/text-summaries.js';
import { dependentsOf } from '../catalogue/uses.js';
import { schema, type Database } from '../db/database.js';
import { currentHouse } from '../house/house-state.js';
import { notFound } from '../http/problem.js';
import type { User } from '../people/user.js';
import { profileOf } from '../people/service.js';
import { accessOf } from '../rights/access.js';
import { subjectOf } from './publishing.js';

/** Changed messages that are given back for each template; all are counted. */
const SHOWN = 12;
/** Messages rendered before other requests get their turn. */
const TURN = 40;

export class ImpactService {
  constructor(private readonly database: Database) {}

  /** The published templates that a text or the house is part of, through any depth. */
  async dependents(name: string, user: User): Promise<Dependents> {
    const { read } = this.database;
    const { kind } = await subjectOf(read, name, user);
    const access = await accessOf(read, user);
    const names =
      kind === 'house' ? await this.houseDependents() : await dependentsOf(read, [{ what: 'text', target: name }]);
    const texts: { name: string; title: string }[] = [];
    let hidden = 0;
    for (const each of names) {
      const row = await rowOf(read, each);
      if (!row || row.kind !== 'message' || row.binnedAt !== null || row.published === null) continue;
      const seen = summaryOf(row, access, '');
      if (seen) texts.push({ name: each, title: seen.title });
      else hidden += 1;
    }
    return { texts: texts.sort((a, b) => a.title.localeCompare(b.title, 'en')), hidden };
  }

  /** Renders one template before and after, for its own sample set, else the first set there is, else hard cases. */
  async impact(name: string, template: string, user: User): Promise<TemplateImpact> {
    const { read } = this.database;
    const subject = await subjectOf(read, name, user);
    const [own] = await closure(read, template, user, 'fill');
    if (!own) throw notFound('template');
    // As the user's colleagues get it: with a signature and a sender, theirs standing for everybody's.
    const profile = await profileOf(read, user.id);
    const signature = signatureFor(own.document.attrs.front.purpose, profile);
    const texts = await closure(read, template, user, 'fill', signature ? [signature] : []);
    const before = await currentHouse(read, 'fill');
    const changedHouse = subject.kind === 'house' ? subject.document : before.house;
    // What the changed text includes anew comes along.
    const added = subject.kind === 'house' ? [] : await closure(read, name, user, 'write');
    const bundle = { text: own, texts, house: before.house, signature };
    const after = {
      ...bundle,
      // The later of two of one name counts.
      texts: subject.kind === 'text' ? [...added, ...texts, subject] : texts,
      house: changedHouse,
    };
    const impact = new Impact(bundle, after, { today: dayIn(new Date(), 'UTC'), zone: 'UTC' });
    const { set, cases } = await this.cases(template, impact.after, senderFields(profile));
    const messages: { recipient: string; before: Side; after: Side }[] = [];
    let [unchanged, changed] = [0, 0];
    for (const [at, { label, filling }] of cases.entries()) {
      if (at % TURN === TURN - 1) await turn();
      const change = impact.changeOf(filling);
      if (!change) {
        unchanged += 1;
        continue;
      }
      changed += 1;
      if (messages.length < SHOWN)
        messages.push({ recipient: label, before: sideOf(change.before), after: sideOf(change.after) });
    }
    const title = own.document.attrs.front.title;
    return { name: template, title, set, unchanged, changed, messages };
  }

  /** Those that use a fact which changed; all, where the look or the holidays did. */
  private async houseDependents(): Promise<string[]> {
    const { read } = this.database;
    const [old, now] = [(await currentHouse(read, 'fill')).house, (await currentHouse(read, 'write')).house];
    const { facts: oldFacts, ...oldRest } = old;
    const { facts, ...rest } = now;
    if (!sameValue(oldRest, rest)) {
      const rows = await read.select({ name: schema.texts.name }).from(schema.texts);
      return rows.map((row) => row.name);
    }
    const keys = [...new Set([...Object.keys(oldFacts), ...Object.keys(facts)])];
    const changed = keys.filter((key) => !sameValue(oldFacts[key], facts[key]));
    return dependentsOf(
      read,
      changed.map((target) => ({ what: 'fact', target })),
    );
  }

  private async cases(
    template: string,
    program: Program,
    sender: Readonly<Record<string, string>>,
  ): Promise<{
    readonly set: string;
    readonly cases: readonly { readonly label: string; readonly filling: Filling }[];
  }> {
    const { read } = this.database;
    const { tables, ownSets, tableRows } = schema;
    const sets = await read
      .select({ id: tables.id, title: tables.title, own: ownSets.text })
      .from(tables)
      .leftJoin(ownSets, and(eq(ownSets.tableId, tables.id), eq(ownSets.text, template)))
      .where(and(eq(tables.use, 'sample'), isNull(tables.binnedAt)))
      .orderBy(asc(tables.title));
    const set = sets.find(({ own }) => own !== null) ?? sets[0];
    if (!set) {
      const hard = hardCases(program, { today: dayIn(new Date(), 'UTC') });
      return {
        set: 'hard cases',
        cases: hard.map(({ label, filling }) => ({
          label,
          filling: { ...filling, sender: { ...sender, ...filling.sender } },
        })),
      };
    }
    const rows = await read
      .select()
      .from(tableRows)
      .where(eq(tableRows.tableId, set.id))
      .orderBy(asc(tableRows.position));
    return {
      set: set.title,
      cases: rows.map((row) => {
        const cells = row.cells;
        return { label: nameOf(cells), filling: fillingOfRow(program, cells, sender) };
      }),
    };
  }
}

type Side = TemplateImpact['messages'][number]['before'];
const sideOf = ({ subject, text, html }: Message): Side => ({ subject, text, html });

const nameOf = (row: Readonly<Record<string, unknown>>): string =>
  [row.first_name, row.last_name].filter(Boolean).join(' ') || String(row.name ?? row.email ?? 'somebody');

/** What the checker says about texts on the server: to count it, and to stop what must not be published. */
import { checkProgram, compileBundle, dayIn, sameValue, type Finding, type TextDocument } from '@vocabula/core';
import { type Database, type Reader, type Writer } from '../db/database.js';
import { currentHouse } from '../house/house-state.js';
import type { User } from '../people/user.js';
import type { Access } from '../rights/access.js';
import { changeText } from './store.js';
import { closure, rowOf } from './visible-texts.js';

/** Findings of a text in the state the user writes it, with what it includes. */
export async function findingsOf(
  reader: Reader | Writer,
  named: { readonly name: string; readonly document: TextDocument },
  user: User,
  access?: Access,
): Promise<Finding[]> {
  const texts = await closure(reader, named.name, user, 'write', [], access);
  const { house } = await currentHouse(reader, 'write');
  return checkProgram(named, compileBundle({ text: named, texts, house }), [], dayIn(new Date(), 'UTC'));
}

export const levelsOf = (findings: readonly Finding[]): [number, number, number] => {
  const of = (level: Finding['level']): number => findings.filter((finding) => finding.level === level).length;
  return [of('error'), of('warning'), of('note')];
};

/** Counts the findings of a working copy anew, for lists. A text that cannot be checked has none to count. */
export async function countFindings(database: Database, name: string, user: User): Promise<void> {
  const row = await rowOf(database.read, name);
  if (!row) return;
  const { document } = row;
  const findings = levelsOf(await findingsOf(database.read, { name, document }, user));
  if (!sameValue(findings, row.findings)) await database.write((writer) => changeText(writer, name, { findings }));
}

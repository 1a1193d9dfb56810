/**
 * What every message of the demo's library becomes, kept in `demo/golden.json`: a change of the inside changes none of
 * it. Where a change is meant, `UPDATE_GOLDEN=yes npx vitest run cli/src/golden.test.ts` writes it anew.
 */
import { createHash } from 'node:crypto';
import { readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { compile, render, writtenEnvelope } from '@vocabula/core';
import { readRecipients } from './inputs.js';
import { FolderLibrary } from './library.js';

const ROOT = 'demo/library';
const GOLDEN = 'demo/golden.json';
/** Recipients of each list that each message is made for. */
const RECIPIENTS = 4;

interface Made {
  readonly subject: string;
  readonly to: string;
  readonly text: string;
  readonly html: string;
  readonly blanks: readonly string[];
  readonly findings: readonly string[];
}

/** Every message of the demo by text and recipient; its HTML by its digest. */
function everyMessage(): Record<string, Made> {
  const library = new FolderLibrary(ROOT);
  const lists = readdirSync('demo/recipients').sort();
  const recipients = lists.flatMap((file) => readRecipients(`demo/recipients/${file}`).slice(0, RECIPIENTS));
  const sender = { name: 'Maeve Aldous', email: 'maeve@larkmoor.example' };
  const made: Record<string, Made> = {};
  for (const file of readdirSync(ROOT, { recursive: true, encoding: 'utf8' }).sort()) {
    if (!file.endsWith('.md')) continue;
    const text = library.load(`${ROOT}/${file}`);
    if (text.document.attrs.front.kind !== 'message') continue;
    const program = compile(text, { library, house: library.house });
    recipients.forEach((recipient, at) => {
      const message = render(program, { recipient, sender, today: '2027-03-15', zone: 'Europe/Dublin' });
      made[`${file} ${at}`] = {
        subject: message.subject,
        to: writtenEnvelope(message).to.join(', '),
        text: message.text,
        html: createHash('sha256').update(message.html).digest('hex'),
        blanks: message.blanks,
        findings: message.findings.map(({ code }) => code),
      };
    });
  }
  return made;
}

it('every message of the demo reads as it did', () => {
  const made = everyMessage();
  expect(Object.keys(made).length).toBeGreaterThan(100);
  if (process.env.UPDATE_GOLDEN === 'yes') writeFileSync(GOLDEN, `${JSON.stringify(made, null, 2)}\n`);
  expect(made).toEqual(JSON.parse(readFileSync(GOLDEN, 'utf8')));
});

/** Loads the demo through the importers that everyone uses, once, into an empty database. */
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import {
  EMPTY_PROFILE,
  HOUSE_NAME,
  USUAL_WAYS,
  type Door,
  type HandOverWays,
  type Profile,
  type Role,
} from '@vocabula/contract';
import { zipSync } from 'fflate';
import type { Logger } from 'pino';
import { parse } from 'yaml';
import { schema, type Database, type Writer } from '../db/database.js';
import type { Services } from '../services.js';
import type { User } from '../people/user.js';
import { hashed } from '../people/secrets.js';
import { DEMO_PASSWORD } from '../people/sign-in.js';
import { keepWorkspaceValue } from '../people/workspace.js';
import { addPerson } from '../people/service.js';
import { ROOT } from '../rights/access.js';
import { publishState, subjectOf } from '../versions/publishing.js';
import { bringInbox, type DemoInbox } from './inbox.js';
import { compareLanguages, type DemoLanguages } from './languages.js';
import { bringMails, type DemoMail } from './mails.js';
import { makeSeries } from './series.js';
import { makeTrial, withoutParagraph } from './trials.js';
import { makeUse, type DemoTrial, type DemoUse } from './use.js';
import { changeText } from '../catalogue/store.js';
import { saveGroup } from '../people/groups.js';
import { addFolder, setGrants } from '../rights/store.js';

interface DemoPeople {
  readonly password: string;
  readonly people: readonly {
    readonly key: string;
    readonly name: string;
    readonly address: string;
    readonly role: Role;
    readonly profile: Partial<Profile>;
  }[];
  readonly at_hand: Readonly<Record<string, readonly string[]>>;
  readonly ways: Readonly<Record<string, Partial<HandOverWays>>>;
  readonly groups: readonly { readonly title: string; readonly members: readonly string[] }[];
  readonly folders: readonly {
    readonly title: string;
    readonly inherits?: boolean;
    readonly secondPerson?: boolean;
    readonly grants: Readonly<Record<string, 'fill' | 'write' | 'publish' | 'manage'>>;
  }[];
}

/** The accounts of the demo, for its sign-in page. @param folder see `loadDemo` */
export function demoAccounts(folder: string): Door['demo'] {
  const { people, password } = demoPeople(folder);
  return people.map(({ name, address, role }) => ({ name, address, role, password }));
}

/**
 * @param folder with `library/` (files of the format), `samples/` and `recipients/` (CSV), `people.yaml`, `mails.yaml`,
 * `inbox.yaml`, `languages.yaml` and `use.yaml`
 */
export async function loadDemo(database: Database, services: Services, folder: string, log: Logger): Promise<void> {
  if (!(await services.people.isEmpty())) return;
  const given = demoPeople(folder);
  const users = await database.write(async (writer) => {
    const password = await hashed(given.password);
    await keepWorkspaceValue(writer, DEMO_PASSWORD, password);
    const made = new Map<string, User>();
    for (const { key, name, address, role, profile } of given.people) {
      const whole = { ...EMPTY_PROFILE, ...profile, email: address };
      made.set(key, await addPerson(writer, { id: randomUUID(), name, address, role, password, profile: whole }));
    }
    await addFolders(writer, given, made);
    return made;
  });
  const administrator = [...users.values()].find(({ role }) => role === 'administrator');
  const author = users.get(given.people[0]?.key ?? '');
  if (!administrator || !author) throw new Error('The demo needs an author and an administrator.');
  const files = (path: string): string[] =>
    readdirSync(path, { withFileTypes: true }).flatMap((entry) =>
      entry.isDirectory() ? files(join(path, entry.name)) : [join(path, entry.name)],
    );
  const library = join(folder, 'library');
  const packed = zipSync(
    Object.fromEntries(files(library).map((file) => [relative(library, file), readFileSync(file)])),
  );
  const { items } = await services.library.look(packed, administrator);
  await services.library.take(
    packed,
    { choices: Object.fromEntries(items.map(({ path }) => [path, 'take' as const])), into: ROOT },
    administrator,
  );
  await compareLanguages(services, yamlIn<DemoLanguages>(folder, 'languages.yaml'), administrator);
  const use = yamlIn<DemoUse>(folder, 'use.yaml');
  await publishAll(database, use.trials, author, administrator);
  await importTables(services, files, folder, author);
  for (const [key, user] of users) {
    await services.atHand.save(given.at_hand[key] ?? [], user);
    const ways = given.ways[key];
    if (ways) await services.people.saveWays(user, { ...USUAL_WAYS, ...ways });
  }
  const now = new Date();
  const recipients = await peopleOf(services, author);
  const used = await makeUse(database, use, users, recipients, now);
  for (const trial of use.trials) await makeTrial(database, use, trial, users, now);
  for (const series of use.series) await makeSeries(database, use, series, users, now);
  await bringMails(yamlIn<readonly DemoMail[]>(folder, 'mails.yaml'), users, services.letters, now);
  for (const inbox of yamlIn<readonly DemoInbox[]>(folder, 'inbox.yaml')) await bringInbox(services, inbox, users, now);
  log.info({ texts: items.length, used }, 'demo loaded');
}

/** Takes in the sample sets and the recipient lists. */
async function importTables(
  { tables }: Services,
  files: (path: string) => string[],
  folder: string,
  author: User,
): Promise<void> {
  for (const [use, sub] of [
    ['sample', 'samples'],
    ['recipients', 'recipients'],
  ] as const) {
    for (const file of files(join(folder, sub))) {
      const title = (file.split('/').at(-1) ?? file).replace(/\.csv$/, '').replace(/-/g, ' ');
      const named = title.charAt(0).toUpperCase() + title.slice(1);
      const made = await tables.import(use, named, readFileSync(file), { accept: false }, author);
      // The lists are the whole garden's.
      if (use === 'recipients')
        await tables.change(
          made.id,
          { revision: made.revision, changes: [{ what: 'folder', folder: ROOT }] },
          author,
        );
    }
  }
}

const yamlIn = <T>(folder: string, name: string): T => parse(readFileSync(join(folder, name), 'utf8')) as T;
const demoPeople = (folder: string): DemoPeople => yamlIn(folder, 'people.yaml');

/** Everybody in the recipient lists. */
async function peopleOf({ tables }: Services, user: User): Promise<Readonly<Record<string, string>>[]> {
  const rows: Readonly<Record<string, string>>[] = [];
  for (const { id } of await tables.list('recipients', user)) rows.push(...(await tables.get(id, user)).cells);
  return rows;
}

async function addFolders(
  writer: Writer,
  { groups, folders }: DemoPeople,
  people: ReadonlyMap<string, User>,
): Promise<void> {
  const holders = new Map<string, string>();
  for (const { title, members } of groups) {
    const persons = members.map((key) => people.get(key)?.id).filter((person) => person !== undefined);
    const { id } = await saveGroup(writer, undefined, title, persons);
    holders.set(`group:${title}`, `group:${id}`);
  }
  for (const { title, inherits = true, secondPerson = false, grants } of folders) {
    const id = randomUUID();
    await addFolder(writer, { id, parent: ROOT, title, inherits, secondPerson, position: 50 });
    const given = Object.entries(grants).map(([holder, right]) => [holders.get(holder) ?? holder, right] as const);
    await setGrants(writer, id, new Map(given));
  }
}

/** Publishes all there is, the house first, as the author would. */
async function publishAll(
  database: Database,
  trials: readonly DemoTrial[],
  author: User,
  administrator: User,
): Promise<void> {
  await database.write(async (writer) => {
    const words = 'The first version.';
    await publishState(writer, await subjectOf(writer, HOUSE_NAME, administrator), words, administrator);
    const names = await writer.select({ name: schema.texts.name }).from(schema.texts);
    for (const { name } of names) {
      const subject = await subjectOf(writer, name, administrator);
      const tried = trials.find(({ text }) => text === name);
      if (tried && subject.kind === 'text') {
        const document = withoutParagraph(subject.document, tried.first_was_without);
        await publishState(writer, { ...subject, document }, tried.notes[0], author);
      }
      await publishState(writer, subject, tried?.notes[1] ?? words, author);
      await changeText(writer, name, { madeBy: author.id });
    }
  });
}

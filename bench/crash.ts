/**
 * A server that is killed at random points of 500 writes: what was acknowledged is there afterwards, what was not is
 * there whole or not at all, and the database is sound. Nothing is timed.
 */
import { createClient } from '@libsql/client';
import { readText } from '@vocabula/core/markdown';
import { startServer, stopServer, temporaryFolder } from './server.js';

const WRITES = 500;
const KILLS = 12;

export async function bench(): Promise<void> {
  const folder = temporaryFolder();
  let server = await startServer(folder);
  let cookie = await server.signIn('maeve');
  /** What was acknowledged: by name, the words last saved and their revision. */
  const kept = new Map<string, { words: string; revision: number }>();
  /** Writes that got no answer: each may be there or not. */
  const open = new Map<string, string>();
  const killAt = new Set(Array.from({ length: KILLS }, () => 1 + Math.floor(Math.random() * (WRITES - 2))));
  let kills = 0;
  const send = async (method: string, path: string, body: unknown): Promise<{ revision: number; name: string }> => {
    const headers = { 'content-type': 'application/json', cookie };
    const answer = await fetch(`${server.base}${path}`, { method, headers, body: JSON.stringify(body) });
    if (!answer.ok) throw new Error(`${answer.status} ${await answer.text()}`);
    return (await answer.json()) as { revision: number; name: string };
  };
  for (let at = 0; at < WRITES; at += 1) {
    // Somewhere inside the write, not beside it.
    if (killAt.has(at)) setTimeout(() => server.process.kill('SIGKILL'), Math.random() * 25);
    const old = [...kept.keys()][Math.floor(Math.random() * kept.size)];
    const words = `words ${at}`;
    const title =
      old === undefined || at % 3 === 0 ? `Text ${at}` : (old.charAt(0).toUpperCase() + old.slice(1)).replace('-', ' ');
    const source = `---\nvocabula: 1\nkind: message\ntitle: ${title}\nsubject: S\n---\n${words}\n`;
    const { document } = readText(source);
    const name = title.toLowerCase().replace(' ', '-');
    try {
      const { revision } = kept.has(name)
        ? await send('PUT', `/api/texts/${name}`, { document, revision: kept.get(name)?.revision })
        : await send('POST', '/api/texts', { kind: 'message', title, document });
      kept.set(name, { words, revision });
    } catch {
      open.set(name, words);
      if (server.process.exitCode === null && server.process.signalCode === null) await stopServer(server, 'SIGKILL');
      kills += 1;
      server = await startServer(folder);
      cookie = await server.signIn('maeve');
      // What was under way may have been done: go on from what is there.
      const answer = await fetch(`${server.base}/api/texts/${name}`, { headers: { cookie } });
      if (answer.ok) {
        const found = (await answer.json()) as { revision: number; document: unknown };
        const says = JSON.stringify(found.document);
        const [before, meant] = [kept.get(name)?.words, words];
        if (!says.includes(`"${meant}"`) && !(before && says.includes(`"${before}"`)))
          throw new Error(`${name} says neither what it said nor what it was to say`);
        kept.set(name, { words: says.includes(`"${meant}"`) ? meant : (before ?? meant), revision: found.revision });
      }
    }
  }
  let missing = 0;
  for (const [name, { words }] of kept) {
    const answer = await fetch(`${server.base}/api/texts/${name}`, { headers: { cookie } });
    if (!answer.ok || !JSON.stringify(await answer.json()).includes(`"${words}"`)) missing += 1;
  }
  await stopServer(server);
  const client = createClient({ url: server.database });
  const integrity = (await client.execute('PRAGMA integrity_check')).rows[0]?.integrity_check;
  const foreign = (await client.execute('PRAGMA foreign_key_check')).rows.length;
  const search = Number(
    (
      await client.execute(
        'SELECT count(*) AS n FROM searched s WHERE NOT EXISTS (SELECT 1 FROM search f WHERE f.rowid = s.id)',
      )
    ).rows[0]?.n,
  );
  client.close();
  console.log(`${WRITES} writes, ${kills} kills, ${open.size} writes without an answer`);
  console.log(
    `acknowledged and missing: ${missing}; integrity: ${String(integrity)}; broken references: ${foreign}; not findable: ${search}`,
  );
  if (missing > 0 || integrity !== 'ok' || foreign > 0 || search > 0) process.exitCode = 1;
}

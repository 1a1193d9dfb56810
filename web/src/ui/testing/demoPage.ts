/**
 * The whole application in a test, on a real server with the demo's data: each file of tests asks for a server of its
 * own, on a copy of the demo's database. What is seen in a browser alone (layout, editing in place, the clipboard, frames)
 * is not seen here; the journeys in `e2e/` are for that.
 */
import { request } from 'node:http';
import type { WorkingCopy } from '@vocabula/contract';
import { afterAll, beforeAll, inject } from 'vitest';
import { openApplication, type Opened } from './page';

declare module 'vitest' {
  interface ProvidedContext {
    /** Where servers on the demo are asked for; see `server/src/testing/demo-host.ts`. */
    readonly demoHost: string;
  }
}

/** What the demo's people sign in with. */
const PASSWORD = 'heather-on-the-moor';

export interface DemoPage extends Opened {
  /** Calls the server as this person does, beside the page. */
  readonly call: <T>(method: string, path: string, body?: unknown) => Promise<T>;
}

/** Takes texts in, as files of the format by their names. */
export const takeIn = ({ call }: Pick<DemoPage, 'call'>, texts: Readonly<Record<string, string>>): Promise<unknown> =>
  call('POST', '/texts/import', {
    files: Object.entries(texts).map(([name, content]) => ({ file: `${name}.md`, content })),
  });

/** Changes words of a text's working copy. */
export async function rewrite({ call }: Pick<DemoPage, 'call'>, name: string, from: string, to: string): Promise<void> {
  const { document, revision } = await call<WorkingCopy>('GET', `/texts/${name}`);
  const changed = JSON.stringify(document).replace(from, to);
  if (changed === JSON.stringify(document)) throw new Error(`“${from}” is not in ${name}.`);
  await call('PUT', `/texts/${name}`, { document: JSON.parse(changed) as unknown, revision });
}

/** Publishes a text's working copy. */
export async function publish({ call }: Pick<DemoPage, 'call'>, name: string, note = 'For a test'): Promise<void> {
  const { revision } = await call<{ readonly revision: number }>('GET', `/versions/${name}`);
  await call('POST', `/versions/${name}/publish`, { revision, note });
}
export interface Demo {
  /** Opens an address as one of the demo's people, by the name before the @. */
  open(path: string, who?: string): Promise<DemoPage>;
  /** Calls the server as somebody else. */
  as(who: string): Pick<DemoPage, 'call'>;
}

/** Gives the tests of a file a server on the demo. */
export function useDemo(): Demo {
  let url = '';
  const cookies = new Map<string, string>();
  beforeAll(async () => {
    const answer = await send('POST', inject('demoHost'));
    url = answer.body.toString();
    if (answer.status !== 200) throw new Error(`No server on the demo: ${url}`);
  });
  afterAll(() => send('DELETE', `${inject('demoHost')}/?url=${encodeURIComponent(url)}`));

  async function signedIn(who: string): Promise<string> {
    const known = cookies.get(who);
    if (known !== undefined) return known;
    const body = JSON.stringify({ address: `${who}@larkmoor.example`, password: PASSWORD });
    const answer = await send('POST', `${url}/api/door/sign-in`, { 'content-type': 'application/json' }, body);
    const [cookie = ''] = (answer.headers['set-cookie']?.[0] ?? '').split(';');
    if (answer.status !== 204) throw new Error(`${who} could not sign in: ${answer.body.toString()}`);
    cookies.set(who, cookie);
    return cookie;
  }
  const as = (who: string): Pick<DemoPage, 'call'> => ({
    async call<T>(method: string, address: string, body?: unknown): Promise<T> {
      const content = body === undefined ? undefined : JSON.stringify(body);
      const headers: Record<string, string> = { cookie: await signedIn(who) };
      if (content !== undefined) headers['content-type'] = 'application/json';
      const answer = await send(method, `${url}/api${address}`, headers, content);
      if (answer.status >= 400) throw new Error(`${method} ${address}: ${answer.body.toString()}`);
      return (answer.body.length === 0 ? undefined : JSON.parse(answer.body.toString())) as T;
    },
  });
  return {
    async open(path, who = 'maeve') {
      const cookie = await signedIn(who);
      const asking = (async (input: string, init: RequestInit = {}) => {
        const { type, bytes } = await contentOf(init.body);
        const headers = { cookie, ...(type === '' ? {} : { 'content-type': type }) };
        const answer = await send(init.method ?? 'GET', new URL(input, url).href, headers, bytes);
        const content = { 'content-type': String(answer.headers['content-type'] ?? '') };
        const isEmpty = answer.status === 204 || answer.status === 304;
        return new Response(isEmpty ? null : new Uint8Array(answer.body), { status: answer.status, headers: content });
      }) as typeof fetch;
      return { ...(await openApplication(path, asking)), ...as(who) };
    },
    as,
  };
}

interface Sent {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  readonly body: Buffer;
}
/** Sends a request by Node's own means: the page's `fetch` would hold this to rules of origins. */
function send(
  method: string,
  address: string,
  headers: Readonly<Record<string, string>> = {},
  body?: string | Uint8Array,
): Promise<Sent> {
  return new Promise((resolve, reject) => {
    const asked = request(address, { method, headers }, (answer) => {
      const parts: Buffer[] = [];
      answer.on('data', (part: Buffer) => parts.push(part));
      answer.on('end', () =>
        resolve({ status: answer.statusCode ?? 0, headers: answer.headers, body: Buffer.concat(parts) }),
      );
    });
    asked.on('error', reject);
    asked.end(body);
  });
}

/** The bytes of what a page sends, and their type. */
async function contentOf(body: unknown): Promise<{ readonly type: string; readonly bytes?: Uint8Array }> {
  if (body === undefined || body === null) return { type: '' };
  if (typeof body === 'string') return { type: 'application/json', bytes: Buffer.from(body) };
  if (body instanceof FormData) return multipart(body);
  return { type: 'application/octet-stream', bytes: Buffer.from(await (body as Blob).arrayBuffer()) };
}

/** A form with files as RFC 7578 writes it. */
async function multipart(form: FormData): Promise<{ readonly type: string; readonly bytes: Uint8Array }> {
  const edge = 'vocabula-page-edge';
  const parts: Buffer[] = [];
  for (const [name, value] of form.entries()) {
    const isFile = typeof value !== 'string';
    const file = isFile ? `; filename="file"\r\ncontent-type: application/octet-stream` : '';
    parts.push(Buffer.from(`--${edge}\r\ncontent-disposition: form-data; name="${name}"${file}\r\n\r\n`));
    parts.push(isFile ? Buffer.from(await value.arrayBuffer()) : Buffer.from(value), Buffer.from('\r\n'));
  }
  return {
    type: `multipart/form-data; boundary=${edge}`,
    bytes: Buffer.concat([...parts, Buffer.from(`--${edge}--\r\n`)]),
  };
}

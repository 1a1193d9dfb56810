/** The demo's people, as journeys sign in. */
import { readFileSync } from 'node:fs';
import type { APIRequestContext } from '@playwright/test';
import { parse } from 'yaml';

const { password, people } = parse(readFileSync('demo/people.yaml', 'utf8')) as {
  readonly password: string;
  readonly people: readonly {
    readonly key: string;
    readonly name: string;
    readonly address: string;
    readonly profile: Readonly<Record<string, string>>;
  }[];
};

/** Signs somebody in by their key in `demo/people.yaml`, without the page for it. */
export async function signIn(request: APIRequestContext, key: string, base = ''): Promise<void> {
  const address = people.find((person) => person.key === key)?.address ?? key;
  const answer = await request.post(`${base}/api/door/sign-in`, { data: { address, password } });
  if (answer.status() !== 204) throw new Error(`${key} could not sign in: ${await answer.text()}`);
}

/** Somebody's sender fields as the demo has them, with the signature for new messages. */
export function profileOf(key: string): Record<string, string> {
  const person = people.find((each) => each.key === key);
  if (!person) throw new Error(`${key} is nobody`);
  const { reply_signature: _reply, ...profile } = person.profile;
  return { ...profile, name: person.name, email: person.address };
}

export { password };

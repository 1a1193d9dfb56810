/**
 * The whole application in a test, on a server that is made up: places are opened by their address, things are found by
 * their roles and names, and every answer is held to the schema of its endpoint.
 */
import { ENDPOINTS, type Answered, type EndpointName, type Endpoints, type Me } from '@vocabula/contract';
import { EMPTY_PROFILE, USUAL_WAYS } from '@vocabula/contract/profile';
import { configure, screen, within } from '@testing-library/dom';
import { userEvent, type UserEvent } from '@testing-library/user-event';
import { flushPromises, mount, type VueWrapper } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { vi } from 'vitest';
import { createMemoryHistory, type Router } from 'vue-router';
import App from '../../App.vue';
import { makeRouter } from '../../router';

// Parts of places are loaded when they are wanted, which takes its time beside other work.
// Whether something is hidden is worked out from style sheets, which tests do not have.
configure({
  asyncUtilTimeout: 40_000,
  defaultHidden: true,
  // What is not found is told in a line, without the whole page.
  getElementError: (message) => new Error((message ?? '').split('\n\n')[0]),
});

/** A request as the server sees it. */
export interface Seen {
  readonly name: EndpointName;
  readonly params: Readonly<Record<string, string>>;
  readonly query: Readonly<Record<string, string>>;
  readonly body: unknown;
}
/** An answer, or what makes one of the request. A problem is thrown. */
type Answer<N extends EndpointName> = Answered<Endpoints[N]> | ((seen: Seen) => Answered<Endpoints[N]>);
export type Answers = { readonly [N in EndpointName]?: Answer<N> };

/** A refusal of the server. */
export class Refusal extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
  ) {
    super(message);
  }
}

/** Maeve, an author. */
export const MAEVE: Me = {
  id: 'p1',
  address: 'maeve@larkmoor.example',
  role: 'author',
  addresses: [],
  workspace: { counting: false },
  profile: { ...EMPTY_PROFILE, name: 'Maeve Quill', email: 'maeve@larkmoor.example' },
  ways: USUAL_WAYS,
};
/** What every page asks for. */
const USUAL: Answers = {
  'GET /me': MAEVE,
  'GET /outgoing/service': { kind: 'stand-in', pause: undefined },
};

/** The application, opened at an address. */
export interface Opened {
  readonly user: UserEvent;
  readonly router: Router;
  /** Takes the page down. */
  readonly close: () => void;
}
export interface Page extends Opened {
  /** Requests so far. */
  readonly seen: readonly Seen[];
  /** Those of one endpoint, as what was sent. */
  readonly sent: (name: EndpointName) => unknown[];
  /** Takes the page down. @throws where an answer did not fit its schema */
  readonly close: () => void;
}

/** Opens an address of the application, whose requests are answered by `answering`. */
export async function openApplication(path: string, answering: typeof fetch): Promise<Opened> {
  vi.stubGlobal('fetch', answering);
  const pinia = createPinia();
  setActivePinia(pinia);
  const router = makeRouter(createMemoryHistory());
  await router.push(path);
  const wrapper: VueWrapper = mount(App, { attachTo: document.body, global: { plugins: [pinia, router] } });
  await settled();
  return {
    user: userEvent.setup(),
    router,
    close: () => {
      wrapper.unmount();
      // What was still to be asked is asked of nobody.
      vi.stubGlobal('fetch', () => Promise.reject(new Error('The page is closed.')));
      document.body.replaceChildren();
    },
  };
}

/** Opens an address of the application. Requests without an answer are refused with 404. */
export async function openPage(path: string, answers: Answers = {}): Promise<Page> {
  const seen: Seen[] = [];
  faults.length = 0;
  const page = await openApplication(path, (input, init) =>
    answer({ ...USUAL, ...answers }, seen, String(input), init ?? {}),
  );
  return {
    ...page,
    seen,
    sent: (name) => seen.filter((each) => each.name === name).map(({ body }) => body),
    close: () => {
      page.close();
      if (faults.length > 0) throw faults[0];
    },
  };
}
/** Waits until what was begun is shown. */
export async function settled(): Promise<void> {
  for (let round = 0; round < 5; round += 1) {
    await flushPromises();
    await new Promise((resolve) => setTimeout(resolve));
  }
}
export { screen, within };

/** Answers of tests that the server would never give. */
const faults: unknown[] = [];

async function answer(answers: Answers, seen: Seen[], input: string, init: RequestInit): Promise<Response> {
  const found = endpointOf(init.method ?? 'GET', new URL(input, 'http://page.example'));
  const problem = (status: number, code: string, message: string): Response =>
    new Response(JSON.stringify({ code, message }), { status });
  if (!found) return problem(404, 'not-found', `No endpoint for ${init.method ?? 'GET'} ${input}.`);
  const request = { ...found, body: typeof init.body === 'string' ? JSON.parse(init.body) : init.body };
  seen.push(request);
  const given = answers[found.name] as ((from: Seen) => unknown) | undefined;
  if (given === undefined && !(found.name in answers)) return problem(404, 'not-found', 'Nothing here.');
  try {
    const value = typeof given === 'function' ? given(request) : given;
    const { answer: schema } = ENDPOINTS[found.name] as { answer?: { parse(value: unknown): unknown } };
    if (value === undefined) return new Response(null, { status: 204 });
    return new Response(JSON.stringify(schema ? schema.parse(value) : value), { status: 200 });
  } catch (failure) {
    if (failure instanceof Refusal) return problem(failure.status, failure.code, failure.message);
    faults.push(failure);
    throw failure;
  }
}

function endpointOf(method: string, { pathname, searchParams }: URL): Omit<Seen, 'body'> | undefined {
  const path = pathname.replace(/^\/api/, '');
  for (const name of Object.keys(ENDPOINTS) as EndpointName[]) {
    const [verb, pattern = ''] = name.split(' ');
    const match = new RegExp(`^${pattern.replace(/\{(\w+)\}/g, '(?<$1>[^/]+)')}$`).exec(path);
    if (verb === method && match) return { name, params: { ...match.groups }, query: Object.fromEntries(searchParams) };
  }
  return undefined;
}

/** The server, as typed calls. Every failure is an `ApiProblem` with words for people. */
import type {
  Asset,
  ChangeTable,
  Choices,
  Closure,
  Conflict,
  Converted,
  CopyTable,
  CreateText,
  Fill,
  FillSummary,
  HandedOver,
  HandOver,
  Hit,
  Imported,
  ImportFiles,
  Letter,
  LetterSummary,
  LookAt,
  MakeTable,
  Problem,
  Profile,
  ProofRecord,
  RecipientHit,
  Recognised,
  SaveFill,
  SaveHouse,
  SaveText,
  SendProof,
  SentProof,
  SetAside,
  StartFill,
  Starter,
  StoredHouse,
  StoredTable,
  TableSummary,
  TextSummary,
  Use,
  WorkingCopy,
} from '@vocabula/contract';

export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    message: string,
    readonly details?: unknown,
  ) {
    super(message);
  }

  /** Both texts, if this is a conflict. */
  get conflict(): Conflict | undefined {
    return this.code === 'stale-revision' ? (this.details as Conflict) : undefined;
  }
}

/** Requests that outlive their page must be small; browsers allow 64 kB of them. */
const OUTLIVING = 60_000;

async function call(method: string, path: string, body?: unknown): Promise<Response> {
  const raw = body instanceof Blob;
  let response: Response;
  try {
    const content = body === undefined ? undefined : raw ? body : JSON.stringify(body);
    response = await fetch(`/api${path}`, {
      method,
      // What is being kept while the page is left still arrives.
      keepalive: method === 'PUT' && typeof content === 'string' && content.length < OUTLIVING,
      ...(content === undefined
        ? {}
        : { body: content, headers: { 'content-type': raw ? 'application/octet-stream' : 'application/json' } }),
    });
  } catch {
    throw new ApiProblem(0, 'offline', 'The server cannot be reached. What you wrote is still here.');
  }
  if (response.ok) return response;
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  throw new ApiProblem(
    response.status,
    problem?.code ?? 'failed',
    problem?.message ?? 'Something went wrong.',
    problem?.details,
  );
}

const json = async <T>(method: string, path: string, body?: unknown): Promise<T> =>
  (await (await call(method, path, body)).json()) as T;
const done = async (method: string, path: string, body?: unknown): Promise<void> =>
  void (await call(method, path, body));
const query = (values: Record<string, string | undefined>): string =>
  new URLSearchParams(
    Object.entries(values).filter((each): each is [string, string] => each[1] !== undefined),
  ).toString();

const chosen = (choices: Choices): string | undefined =>
  Object.keys(choices).length > 0 ? JSON.stringify(choices) : undefined;

/** Where an asset is fetched from. @param path as texts name it, `assets/gate.png` */
export const assetUrl = (path: string): string => `/api/${path}`;

export const api = {
  texts: () => json<TextSummary[]>('GET', '/texts'),
  text: (name: string) => json<WorkingCopy>('GET', `/texts/${name}`),
  closure: (name: string) => json<Closure>('GET', `/texts/${name}/closure`),
  createText: (body: CreateText) => json<WorkingCopy>('POST', '/texts', body),
  saveText: (name: string, body: SaveText) => json<WorkingCopy>('PUT', `/texts/${name}`, body),
  importFiles: (body: ImportFiles) => json<Imported[]>('POST', '/texts/import', body),
  binText: (name: string) => done('DELETE', `/texts/${name}`),
  restoreText: (name: string) => done('POST', `/texts/${name}/restore`),
  search: (q: string) => json<Hit[]>('GET', `/texts/search?${query({ q })}`),

  tables: (use?: Use) => json<TableSummary[]>('GET', `/tables?${query({ use })}`),
  table: (id: string) => json<StoredTable>('GET', `/tables/${id}`),
  recognise: (file: Blob, choices: Choices = {}, into?: string) =>
    json<Recognised>('POST', `/tables/recognise?${query({ choices: chosen(choices), into })}`, file),
  importTable: (use: Use, title: string, file: Blob, choices: Choices = {}) =>
    json<TableSummary>('POST', `/tables?${query({ use, title, accept: 'true', choices: chosen(choices) })}`, file),
  addRows: (id: string, revision: number, file: Blob, choices: Choices) =>
    json<TableSummary>(
      'POST',
      `/tables/${id}/rows?${query({ revision: String(revision), choices: chosen(choices) })}`,
      file,
    ),
  makeTable: (body: MakeTable) => json<TableSummary>('POST', '/tables/made', body),
  changeTable: (id: string, body: ChangeTable) => json<TableSummary>('PATCH', `/tables/${id}`, body),
  copyTable: (id: string, body: CopyTable) => json<TableSummary>('POST', `/tables/${id}/copy`, body),
  ownSet: (text: string, table: string | null) => done('PUT', `/tables/own/${text}`, { table }),
  binTable: (id: string) => done('DELETE', `/tables/${id}`),
  restoreTable: (id: string) => done('POST', `/tables/${id}/restore`),
  recipients: (q: string) => json<RecipientHit[]>('GET', `/tables/recipients?${query({ q })}`),

  fills: () => json<FillSummary[]>('GET', '/fills'),
  fill: (id: string) => json<Fill>('GET', `/fills/${id}`),
  startFill: (body: StartFill) => json<Fill>('POST', '/fills', body),
  saveFill: (id: string, body: SaveFill) => json<FillSummary>('PUT', `/fills/${id}`, body),
  binFill: (id: string) => done('DELETE', `/fills/${id}`),
  restoreFill: (id: string) => done('POST', `/fills/${id}/restore`),
  handOver: (id: string, body: HandOver) => json<HandedOver>('POST', `/fills/${id}/hand-over`, body),
  draft: async (id: string, body: HandOver) => (await call('POST', `/fills/${id}/hand-over`, body)).blob(),

  house: () => json<StoredHouse>('GET', '/house'),
  saveHouse: (body: SaveHouse) => json<StoredHouse>('PUT', '/house', body),
  assets: () => json<Asset[]>('GET', '/assets'),
  addAsset: (name: string, file: Blob, exact = false) =>
    json<Asset>('POST', `/assets?${query({ name, exact: exact ? 'true' : undefined })}`, file),
  starters: () => json<Starter[]>('GET', '/starters'),
  convert: (name: string, file: Blob) => json<Converted>('POST', `/convert?${query({ name })}`, file),

  proofRecord: (text: string) => json<ProofRecord>('GET', `/proofs/${text}`),
  lookAt: (text: string, body: LookAt) => done('POST', `/proofs/${text}/looked-at`, body),
  unlook: (text: string, digest: string) => done('DELETE', `/proofs/${text}/looked-at/${digest}`),
  setAside: (text: string, body: SetAside) => done('POST', `/proofs/${text}/set-aside`, body),
  bringBack: (text: string, fingerprint: string) => done('DELETE', `/proofs/${text}/set-aside/${fingerprint}`),
  sendProof: (text: string, body: SendProof) => json<SentProof>('POST', `/proofs/${text}/send`, body),
  letters: () => json<LetterSummary[]>('GET', '/mailroom/letters'),
  letter: (id: string) => json<Letter>('GET', `/mailroom/letters/${id}`),

  me: () => json<Profile>('GET', '/me'),
  saveMe: (profile: Profile) => json<Profile>('PUT', '/me', profile),
};

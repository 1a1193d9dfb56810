/** The server, as typed calls. Every failure is an `ApiProblem` with words for people. */
import type {
  AlikeGroup,
  Answer,
  Ask,
  Asset,
  AuditEntry,
  ChangeFolder,
  ChangePassword,
  ChangePerson,
  ChangeRemark,
  ChangeTable,
  CheckpointReason,
  Choices,
  Closure,
  Conflict,
  Converted,
  CopyTable,
  CreateText,
  Dependents,
  Door,
  Fill,
  FillSummary,
  FirstPerson,
  Folder,
  FolderRights,
  Group,
  HandedOver,
  HandOver,
  Hit,
  Imported,
  ImportFiles,
  Invite,
  Key,
  Letter,
  LetterSummary,
  LibraryLook,
  LibraryTaken,
  LinkFor,
  LookAt,
  MakeFolder,
  MakeKey,
  MakeRemark,
  MakeTable,
  Many,
  Me,
  Neighbours,
  NewKey,
  OneTimeLink,
  Person,
  Problem,
  Profile,
  ProofRecord,
  Publish,
  RecipientHit,
  Recognised,
  Remark,
  Request,
  RestoreState,
  SaveFill,
  SaveGroup,
  SaveHouse,
  SaveText,
  SendProof,
  SentFrom,
  SentProof,
  Session,
  SetAside,
  SignIn,
  Standing,
  StartFill,
  Starter,
  State,
  StoredHouse,
  StoredTable,
  TableSummary,
  TakeLibrary,
  TemplateImpact,
  TextSummary,
  Use,
  WorkingCopy,
} from '@vocabula/contract';
import type { Finding } from '@vocabula/core';

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

/** Called when a request found that nobody is signed in any more. */
let signedOut = (): void => undefined;
export const whenSignedOut = (then: () => void): void => void (signedOut = then);

/** Requests that outlive their page must be small; browsers allow 64 kB of them. */
const OUTLIVING = 60_000;

async function call(method: string, path: string, body?: unknown): Promise<Response> {
  const raw = body instanceof Blob;
  const form = body instanceof FormData;
  let response: Response;
  try {
    const content = body === undefined ? undefined : raw || form ? body : JSON.stringify(body);
    const type = raw ? 'application/octet-stream' : 'application/json';
    response = await fetch(`/api${path}`, {
      method,
      // What is being kept while the page is left still arrives.
      keepalive: method === 'PUT' && typeof content === 'string' && content.length < OUTLIVING,
      ...(content === undefined
        ? {}
        : // A form says its own type, with the boundary in it.
          { body: content, ...(form ? {} : { headers: { 'content-type': type } }) }),
    });
  } catch {
    throw new ApiProblem(0, 'offline', 'The server cannot be reached. What you wrote is still here.');
  }
  if (response.ok) return response;
  const problem = (await response.json().catch(() => undefined)) as Problem | undefined;
  if (response.status === 401) signedOut();
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

/** Where a library is fetched from: all of it, a folder, or some texts. */
export const libraryUrl = (of: { readonly folder?: string; readonly names?: readonly string[] } = {}): string =>
  `/api/library/zip?${query({ folder: of.folder, names: of.names?.join(',') })}`;

/** Where the audit trail is fetched from as a table. */
export const auditUrl = (filter: Record<string, string | undefined>): string => `/api/audit/csv?${query(filter)}`;

/** Where an asset is fetched from. @param path as texts name it, `assets/gate.png` */
export const assetUrl = (path: string): string => `/api/${path}`;

export const api = {
  texts: () => json<TextSummary[]>('GET', '/texts'),
  text: (name: string) => json<WorkingCopy>('GET', `/texts/${name}`),
  closure: (name: string, purpose: 'fill' | 'write' = 'write') =>
    json<Closure>('GET', `/texts/${name}/closure?${query({ for: purpose })}`),
  createText: (body: CreateText) => json<WorkingCopy>('POST', '/texts', body),
  saveText: (name: string, body: SaveText) => json<WorkingCopy>('PUT', `/texts/${name}`, body),
  importFiles: (body: ImportFiles) => json<Imported[]>('POST', '/texts/import', body),
  binText: (name: string) => done('DELETE', `/texts/${name}`),
  restoreText: (name: string) => done('POST', `/texts/${name}/restore`),
  search: (q: string, purpose: 'fill' | 'write' = 'fill') =>
    json<Hit[]>('GET', `/texts/search?${query({ q, for: purpose })}`),
  many: (body: Many) => done('POST', '/texts/many', body),
  alike: () => json<AlikeGroup[]>('GET', '/texts/alike'),
  neighbours: (of: string) => json<Neighbours>('GET', `/texts/neighbours?${query({ of })}`),

  folders: () => json<Folder[]>('GET', '/folders'),
  makeFolder: (body: MakeFolder) => json<Folder>('POST', '/folders', body),
  folderRights: (id: string) => json<FolderRights>('GET', `/folders/${id}/rights`),
  changeFolder: (id: string, body: ChangeFolder) => done('PATCH', `/folders/${id}`, body),
  removeFolder: (id: string) => done('DELETE', `/folders/${id}`),

  standing: (name: string) => json<Standing>('GET', `/versions/${name}`),
  findings: (name: string) => json<Finding[]>('GET', `/versions/${name}/findings`),
  publish: (name: string, body: Publish) => json<{ version?: number }>('POST', `/versions/${name}/publish`, body),
  takeBackTimed: (name: string, id: string) => done('DELETE', `/versions/${name}/timed/${id}`),
  state: (name: string, state: string) => json<State>('GET', `/versions/${name}/states/${encodeURIComponent(state)}`),
  restoreState: (name: string, body: RestoreState) => done('POST', `/versions/${name}/restore`, body),
  checkpoint: (name: string, reason: CheckpointReason) => done('POST', `/versions/${name}/checkpoints`, { reason }),
  sentFrom: (name: string, number: number) => json<SentFrom[]>('GET', `/versions/${name}/versions/${number}/sent`),
  withdraw: (name: string, number: number, because: string) =>
    done('POST', `/versions/${name}/versions/${number}/withdraw`, { because }),
  retire: (name: string, replacedBy?: string) =>
    done('PUT', `/versions/${name}/retired`, replacedBy ? { replacedBy } : {}),
  offerAgain: (name: string) => done('DELETE', `/versions/${name}/retired`),
  dependents: (name: string) => json<Dependents>('GET', `/versions/${name}/dependents`),
  impact: (name: string, template: string) => json<TemplateImpact>('GET', `/versions/${name}/impact/${template}`),
  remarks: (name: string) => json<Remark[]>('GET', `/versions/${name}/remarks`),
  makeRemark: (name: string, body: MakeRemark) => json<Remark>('POST', `/versions/${name}/remarks`, body),
  changeRemark: (name: string, id: string, body: ChangeRemark) =>
    json<Remark>('PATCH', `/versions/${name}/remarks/${id}`, body),
  requests: () => json<Request[]>('GET', '/requests'),
  ask: (name: string, body: Ask) => json<Request>('POST', `/requests/for/${name}`, body),
  answerRequest: (id: string, body: Answer) => json<Request>('POST', `/requests/${id}/answer`, body),
  takeBackRequest: (id: string) => done('DELETE', `/requests/${id}`),

  lookAtLibrary: (file: Blob) => json<LibraryLook>('POST', '/library/look', file),
  takeLibrary: (file: Blob, choices: TakeLibrary) => {
    const form = new FormData();
    form.append('choices', JSON.stringify(choices));
    form.append('file', file, 'library.zip');
    return json<LibraryTaken>('POST', '/library/take', form);
  },

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
  recipients: (q: string) => json<RecipientHit[]>('GET', `/recipients?${query({ q })}`),

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

  door: () => json<Door>('GET', '/door'),
  makeFirst: (body: FirstPerson) => done('POST', '/door/first', body),
  signIn: (body: SignIn) => done('POST', '/door/sign-in', body),
  signOut: () => done('POST', '/door/sign-out'),
  linkFor: (token: string) => json<LinkFor>('GET', `/door/links/${token}`),
  setPassword: (token: string, password: string) => done('POST', '/door/password', { token, password }),
  changePassword: (body: ChangePassword) => done('POST', '/me/password', body),
  sessions: () => json<Session[]>('GET', '/me/sessions'),
  endSession: (id: string) => done('DELETE', `/me/sessions/${id}`),
  endOtherSessions: () => done('DELETE', '/me/sessions'),
  keys: () => json<Key[]>('GET', '/me/keys'),
  makeKey: (body: MakeKey) => json<NewKey>('POST', '/me/keys', body),
  endKey: (id: string) => done('DELETE', `/me/keys/${id}`),
  people: () => json<Person[]>('GET', '/people'),
  invite: (body: Invite) => json<Person & { link: OneTimeLink }>('POST', '/people', body),
  changePerson: (id: string, body: ChangePerson) => json<Person>('PATCH', `/people/${id}`, body),
  personLink: (id: string) => json<OneTimeLink>('POST', `/people/${id}/link`),
  groups: () => json<Group[]>('GET', '/people/groups'),
  makeGroup: (body: SaveGroup) => json<Group>('POST', '/people/groups', body),
  saveGroup: (id: string, body: SaveGroup) => json<Group>('PUT', `/people/groups/${id}`, body),
  removeGroup: (id: string) => done('DELETE', `/people/groups/${id}`),
  audit: (filter: Record<string, string | undefined>) => json<AuditEntry[]>('GET', `/audit?${query(filter)}`),

  me: () => json<Me>('GET', '/me'),
  saveMe: (profile: Profile) => json<Profile>('PUT', '/me', profile),
};

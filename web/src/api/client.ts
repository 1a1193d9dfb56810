/** The server, as typed calls. Every failure is an `ApiProblem` with words for people. */
import type {
  AddRecipients,
  AlikeGroup,
  Answer,
  Ask,
  Asset,
  AtHand,
  AuditEntry,
  ChangeFolder,
  ChangeMailed,
  ChangeMailing,
  ChangeOutgoing,
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
  Delivered,
  Dependents,
  DoNotWrite,
  Door,
  DriveMailing,
  DroppedIn,
  Fill,
  FillSummary,
  FirstPerson,
  Folder,
  FolderRights,
  Forgotten,
  Forwarded,
  Group,
  HandOver,
  HandOverWays,
  HandedOver,
  Hit,
  ImportFiles,
  Imported,
  Invite,
  Key,
  Letter,
  LetterSummary,
  LibraryLook,
  LibraryTaken,
  LinkFor,
  LookAt,
  MailedRow,
  Mailing,
  MailingSummary,
  MakeFolder,
  MakeKey,
  MakeMailing,
  MakeRemark,
  MakeTable,
  Many,
  Me,
  Neighbours,
  NewKey,
  OwnAddress,
  SendingService,
  PackLibrary,
  NotWritten,
  OfferedValues,
  OneTimeLink,
  Outgoing,
  OutgoingSummary,
  Person,
  PersonRecord,
  Problem,
  Profile,
  ProofRecord,
  Publish,
  ReadOriginal,
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
  StandInClock,
  Standing,
  StartFill,
  Starter,
  State,
  Stitch,
  StoredHouse,
  StoredTable,
  Suggest,
  TableSummary,
  TakeLibrary,
  TemplateImpact,
  TextSummary,
  Use,
  WorkingCopy,
  Workspace,
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

/** Milliseconds after which a request that keeps something counts as lost. */
const HANGING = 20_000;

async function call(method: string, path: string, body?: unknown): Promise<Response> {
  const raw = body instanceof Blob;
  const form = body instanceof FormData;
  let response: Response;
  try {
    const content = body === undefined ? undefined : raw || form ? body : JSON.stringify(body);
    const type = raw ? 'application/octet-stream' : 'application/json';
    response = await fetch(`/api${path}`, {
      method,
      // A request that hangs is tried again by whoever keeps things; it must not hold up what comes after it.
      ...(method === 'PUT' ? { signal: AbortSignal.timeout(HANGING) } : {}),
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
  search: (q: string, purpose: 'fill' | 'write' = 'fill', to?: string) =>
    json<Hit[]>('GET', `/texts/search?${query({ q, for: purpose, to })}`),
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

  packLibrary: async (of: PackLibrary): Promise<Blob> => (await call('POST', '/library/zip', of)).blob(),
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
  handOverFile: async (id: string, body: HandOver) => (await call('POST', `/fills/${id}/hand-over`, body)).blob(),
  memory: (id: string, address: string) => json<OfferedValues>('GET', `/fills/${id}/memory?${query({ address })}`),
  newest: (id: string) => json<Fill>('GET', `/fills/${id}/newest`),
  stitch: (id: string, body: Stitch) => json<Fill>('POST', `/fills/${id}/parts`, body),
  suggest: (id: string, body: Suggest) => done('POST', `/fills/${id}/suggest`, body),
  readOriginal: (mail: Blob) => json<ReadOriginal>('POST', '/fills/read', mail),
  readLetter: (letter: string) => json<ReadOriginal>('GET', `/fills/read/${letter}`),

  person: (address: string) => json<PersonRecord>('GET', `/recipients/record?${query({ address })}`),
  forget: (address: string) => json<Forgotten>('POST', '/recipients/forget', { address }),
  lists: () => json<TableSummary[]>('GET', '/recipients/lists'),
  notWritten: () => json<NotWritten[]>('GET', '/recipients/do-not-write'),
  refuse: (body: DoNotWrite) => done('PUT', '/recipients/do-not-write', body),
  allow: (address: string) => done('DELETE', `/recipients/do-not-write?${query({ address })}`),

  sendingService: () => json<SendingService>('GET', '/outgoing/service'),
  outgoing: () => json<OutgoingSummary[]>('GET', '/outgoing'),
  oneOutgoing: (id: string) => json<Outgoing>('GET', `/outgoing/${id}`),
  changeOutgoing: (id: string, body: ChangeOutgoing) => json<OutgoingSummary>('PATCH', `/outgoing/${id}`, body),

  mailings: () => json<MailingSummary[]>('GET', '/mailings'),
  makeMailing: (body: MakeMailing) => json<Mailing>('POST', '/mailings', body),
  mailing: (id: string) => json<Mailing>('GET', `/mailings/${id}`),
  mailingProgress: (id: string) => json<MailingSummary>('GET', `/mailings/${id}/progress`),
  mailingRows: (id: string) => json<MailedRow[]>('GET', `/mailings/${id}/rows`),
  changeMailing: (id: string, body: ChangeMailing) => json<Mailing>('PATCH', `/mailings/${id}`, body),
  addToMailing: (id: string, body: AddRecipients) => json<Mailing>('POST', `/mailings/${id}/recipients`, body),
  changeMailed: (id: string, row: string, body: ChangeMailed) =>
    json<MailedRow>('PATCH', `/mailings/${id}/rows/${row}`, body),
  driveMailing: (id: string, body: DriveMailing) => json<MailingSummary>('POST', `/mailings/${id}/drive`, body),

  inbox: (all = false) => json<Delivered[]>('GET', `/mailroom/inbox?${query({ done: String(all) })}`),
  letterDone: (id: string, isDone: boolean) => done('PATCH', `/mailroom/letters/${id}`, { done: isDone }),
  dropMail: (file: Blob) => json<DroppedIn>('POST', '/mailroom/drop', file),
  standInClock: () => json<StandInClock>('GET', '/mailroom/clock'),
  forwardClock: (hours: number) => json<Forwarded>('POST', '/mailroom/clock', { hours }),

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
  askAddress: (address: string) => json<OwnAddress[]>('POST', '/me/addresses', { address }),
  dropAddress: (address: string) => done('DELETE', `/me/addresses/${encodeURIComponent(address)}`),
  confirmAddress: (id: string, address: string) =>
    done('PUT', `/people/${id}/addresses/${encodeURIComponent(address)}`),
  removeAddress: (id: string, address: string) =>
    done('DELETE', `/people/${id}/addresses/${encodeURIComponent(address)}`),
  saveMe: (profile: Profile) => json<Profile>('PUT', '/me', profile),
  saveWays: (ways: HandOverWays) => json<HandOverWays>('PUT', '/me/ways', ways),
  atHand: () => json<AtHand[]>('GET', '/me/at-hand'),
  saveAtHand: (names: readonly string[]) => json<AtHand[]>('PUT', '/me/at-hand', { names }),
  saveWorkspace: (workspace: Workspace) => json<Workspace>('PUT', '/me/workspace', workspace),
};

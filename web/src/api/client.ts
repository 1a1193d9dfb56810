/** The server, as typed calls. Every failure is an `ApiProblem` with words for people. */
import { loadPatterns } from '@vocabula/core/patterns';
import type {
  Agree,
  AddRecipients,
  Answer,
  Answered,
  Ask,
  AuditQuery,
  Period,
  ChangeFolder,
  ChangeMailed,
  ChangeMailing,
  ChangeOutgoing,
  ChangePassword,
  ChangePerson,
  ChangeRemark,
  ChangeStep,
  ChangeTable,
  CheckpointReason,
  Choices,
  Conflict,
  CopyTable,
  CreateText,
  DoNotWrite,
  DriveMailing,
  DriveStandingReply,
  EndTrial,
  EndpointName,
  Endpoints,
  FirstPerson,
  Given,
  HandOver,
  HandOverWays,
  ImportFiles,
  Invite,
  LookAt,
  MakeFolder,
  MakeKey,
  MakeMailing,
  MakeRemark,
  MakeTable,
  MakeWebhook,
  Many,
  PackLibrary,
  Problem,
  Profile,
  Publish,
  RestoreState,
  SaveFill,
  SaveGroup,
  SaveHouse,
  SaveText,
  SendProof,
  SetAside,
  SignIn,
  StartFill,
  StandingRule,
  StartSeries,
  StartTrial,
  Stitch,
  Suggest,
  TakeLibrary,
  Use,
  Workspace,
} from '@vocabula/contract';
import { showScriptsOf } from '../ui/scriptFonts';

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

interface Parts {
  readonly params?: Readonly<Record<string, unknown>>;
  readonly query?: Readonly<Record<string, unknown>>;
  readonly body?: unknown;
  readonly file?: Blob;
}

/** Calls an endpoint and gives the response. @throws ApiProblem */
async function request(name: EndpointName, { params = {}, query = {}, body, file }: Parts): Promise<Response> {
  const [method = 'GET', path = ''] = name.split(' ');
  const content = contentOf(body, file);
  const address = path.replace(/\{(\w+)\}/g, (_, parameter: string) => encodeURIComponent(String(params[parameter])));
  let response: Response;
  try {
    response = await fetch(`/api${address}${queryOf(query)}`, {
      method,
      // A request that hangs is tried again by whoever keeps things; it must not hold up what comes after it.
      ...(method === 'PUT' ? { signal: AbortSignal.timeout(HANGING) } : {}),
      // What is being kept while the page is left still arrives.
      keepalive: method === 'PUT' && typeof content === 'string' && content.length < OUTLIVING,
      ...(content === undefined ? {} : { body: content }),
      // A form says its own type, with the boundary in it.
      ...(content === undefined || content instanceof FormData
        ? {}
        : { headers: { 'content-type': file ? 'application/octet-stream' : 'application/json' } }),
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

/** JSON, a file, or a form of both. */
function contentOf(body: unknown, file: Blob | undefined): string | Blob | FormData | undefined {
  if (file === undefined) return body === undefined ? undefined : JSON.stringify(body);
  if (body === undefined) return file;
  const form = new FormData();
  form.append('choices', JSON.stringify(body));
  form.append('file', file, 'file');
  return form;
}

function queryOf(values: Readonly<Record<string, unknown>>): string {
  const given = Object.entries(values).filter(([, value]) => value !== undefined);
  return given.length === 0 ? '' : `?${new URLSearchParams(given.map(([key, value]) => [key, String(value)]))}`;
}

/** Calls an endpoint of the table. What it answers is held to the table’s schema where it is made, on the server. */
async function call<N extends EndpointName>(
  name: N,
  ...given: unknown extends Given<Endpoints[N]> ? [] : [Given<Endpoints[N]>]
): Promise<Answered<Endpoints[N]>> {
  const response = await request(name, (given[0] ?? {}) as Parts);
  if (response.status === 204) return undefined as Answered<Endpoints[N]>;
  const text = await response.text();
  // Texts come in through here and nowhere else: once a page has one with a pattern, it can judge patterns.
  if (text.includes('"pattern":')) await loadPatterns();
  showScriptsOf(text);
  return JSON.parse(text) as Answered<Endpoints[N]>;
}

/** Calls an endpoint whose answer is a file. */
const download = async <N extends EndpointName>(name: N, given: Given<Endpoints[N]>): Promise<Blob> =>
  (await request(name, given as Parts)).blob();

/** Where a table’s columns are decided, as it goes in an address. */
const chosen = (choices: Choices): string | undefined =>
  Object.keys(choices).length > 0 ? JSON.stringify(choices) : undefined;

/** Where the ledger is fetched from as a table. */
export const ledgerUrl = (period: Period): string => `/api/insight/ledger/csv${queryOf(period)}`;
/** Where the audit trail is fetched from as a table. */
export const auditUrl = (filter: Partial<AuditQuery>): string => `/api/audit/csv${queryOf(filter)}`;

/** Where an asset is fetched from. @param path as texts name it, `assets/gate.png` */
export const assetUrl = (path: string): string => `/api/${path}`;

export const api = {
  texts: () => call('GET /texts'),
  text: (name: string) => call('GET /texts/{name}', { params: { name } }),
  closure: (name: string, purpose: 'fill' | 'write' = 'write') =>
    call('GET /texts/{name}/closure', { params: { name }, query: { for: purpose } }),
  createText: (body: CreateText) => call('POST /texts', { body }),
  saveText: (name: string, body: SaveText) => call('PUT /texts/{name}', { params: { name }, body }),
  importFiles: (body: ImportFiles) => call('POST /texts/import', { body }),
  binText: (name: string) => call('DELETE /texts/{name}', { params: { name } }),
  restoreText: (name: string) => call('POST /texts/{name}/restore', { params: { name } }),
  search: (q: string, purpose: 'fill' | 'write' = 'fill', to?: string) =>
    call('GET /texts/search', { query: { q, for: purpose, to } }),
  many: (body: Many) => call('POST /texts/many', { body }),
  alike: () => call('GET /texts/alike'),
  ledger: (period: Period) => call('GET /insight/ledger', { query: period }),
  lookBack: (name: string, period: Period, zone: string) =>
    call('GET /insight/texts/{name}', { params: { name }, query: { ...period, zone } }),
  neighbours: (of: string) => call('GET /texts/neighbours', { query: { of } }),

  folders: () => call('GET /folders'),
  makeFolder: (body: MakeFolder) => call('POST /folders', { body }),
  folderRights: (id: string) => call('GET /folders/{id}/rights', { params: { id } }),
  changeFolder: (id: string, body: ChangeFolder) => call('PATCH /folders/{id}', { params: { id }, body }),
  removeFolder: (id: string) => call('DELETE /folders/{id}', { params: { id } }),

  standing: (name: string) => call('GET /versions/{name}', { params: { name } }),
  findings: (name: string) => call('GET /versions/{name}/findings', { params: { name } }),
  publish: (name: string, body: Publish) => call('POST /versions/{name}/publish', { params: { name }, body }),
  takeBackTimed: (name: string, id: string) => call('DELETE /versions/{name}/timed/{id}', { params: { name, id } }),
  state: (name: string, state: string) => call('GET /versions/{name}/states/{state}', { params: { name, state } }),
  restoreState: (name: string, body: RestoreState) => call('POST /versions/{name}/restore', { params: { name }, body }),
  checkpoint: (name: string, reason: CheckpointReason) =>
    call('POST /versions/{name}/checkpoints', { params: { name }, body: { reason } }),
  sentFrom: (name: string, number: number) =>
    call('GET /versions/{name}/versions/{number}/sent', { params: { name, number } }),
  withdraw: (name: string, number: number, because: string) =>
    call('POST /versions/{name}/versions/{number}/withdraw', { params: { name, number }, body: { because } }),
  retire: (name: string, replacedBy?: string) =>
    call('PUT /versions/{name}/retired', { params: { name }, body: replacedBy ? { replacedBy } : {} }),
  offerAgain: (name: string) => call('DELETE /versions/{name}/retired', { params: { name } }),
  dependents: (name: string) => call('GET /versions/{name}/dependents', { params: { name } }),
  impact: (name: string, template: string) =>
    call('GET /versions/{name}/impact/{template}', { params: { name, template } }),
  agreedLines: (name: string) => call('GET /languages/{name}/agreed', { params: { name } }),
  agreeOn: (name: string, body: Agree) => call('POST /languages/{name}/agreed', { params: { name }, body }),
  remarks: (name: string) => call('GET /versions/{name}/remarks', { params: { name } }),
  makeRemark: (name: string, body: MakeRemark) => call('POST /versions/{name}/remarks', { params: { name }, body }),
  changeRemark: (name: string, id: string, body: ChangeRemark) =>
    call('PATCH /versions/{name}/remarks/{id}', { params: { name, id }, body }),
  trials: (name: string) => call('GET /versions/{name}/trials', { params: { name } }),
  webhooks: () => call('GET /webhooks'),
  makeWebhook: (body: MakeWebhook) => call('POST /webhooks', { body }),
  removeWebhook: (id: string) => call('DELETE /webhooks/{id}', { params: { id } }),
  tryWebhook: (id: string) => call('POST /webhooks/{id}/try', { params: { id } }),
  standingReplies: () => call('GET /standing'),
  makeStandingReply: (body: StandingRule) => call('POST /standing', { body }),
  saveStandingReply: (id: string, body: StandingRule) => call('PUT /standing/{id}', { params: { id }, body }),
  driveStandingReply: (id: string, act: DriveStandingReply['act']) =>
    call('PATCH /standing/{id}', { params: { id }, body: { act } }),
  tryStandingReply: (id: string, wrong: string[]) =>
    call('POST /standing/{id}/try', { params: { id }, body: { wrong } }),
  standingReplyTo: (id: string, letter: string) =>
    call('GET /standing/{id}/replies/{letter}', { params: { id, letter } }),
  standingDecisions: () => call('GET /standing/decisions'),
  runs: () => call('GET /series'),
  startSeries: (body: StartSeries) => call('POST /series', { body }),
  run: (id: string) => call('GET /series/{id}', { params: { id } }),
  stopRun: (id: string) => call('POST /series/{id}/stop', { params: { id } }),
  stepMessage: (id: string, at: number) => call('GET /series/{id}/steps/{at}', { params: { id, at } }),
  changeStep: (id: string, at: number, body: ChangeStep) =>
    call('PATCH /series/{id}/steps/{at}', { params: { id, at }, body }),
  startTrial: (name: string, body: StartTrial) => call('POST /versions/{name}/trials', { params: { name }, body }),
  endTrial: (name: string, id: string, body: EndTrial) =>
    call('POST /versions/{name}/trials/{id}/end', { params: { name, id }, body }),
  requests: () => call('GET /requests'),
  ask: (name: string, body: Ask) => call('POST /requests/for/{name}', { params: { name }, body }),
  answerRequest: (id: string, body: Answer) => call('POST /requests/{id}/answer', { params: { id }, body }),
  takeBackRequest: (id: string) => call('DELETE /requests/{id}', { params: { id } }),

  packLibrary: (body: PackLibrary) => download('POST /library/zip', { body }),
  lookAtLibrary: (file: Blob) => call('POST /library/look', { file }),
  takeLibrary: (file: Blob, body: TakeLibrary) => call('POST /library/take', { body, file }),

  tables: (use?: Use) => call('GET /tables', { query: { use } }),
  table: (id: string) => call('GET /tables/{id}', { params: { id } }),
  recognise: (file: Blob, choices: Choices = {}, into?: string) =>
    call('POST /tables/recognise', { query: { choices: chosen(choices), into }, file }),
  importTable: (use: Use, title: string, file: Blob, choices: Choices = {}) =>
    call('POST /tables', { query: { use, title, accept: 'true', choices: chosen(choices) }, file }),
  addRows: (id: string, revision: number, file: Blob, choices: Choices) =>
    call('POST /tables/{id}/rows', {
      params: { id },
      query: { revision, choices: chosen(choices) },
      file,
    }),
  makeTable: (body: MakeTable) => call('POST /tables/made', { body }),
  changeTable: (id: string, body: ChangeTable) => call('PATCH /tables/{id}', { params: { id }, body }),
  copyTable: (id: string, body: CopyTable) => call('POST /tables/{id}/copy', { params: { id }, body }),
  ownSet: (name: string, table: string | null) => call('PUT /tables/own/{name}', { params: { name }, body: { table } }),
  binTable: (id: string) => call('DELETE /tables/{id}', { params: { id } }),
  restoreTable: (id: string) => call('POST /tables/{id}/restore', { params: { id } }),
  recipients: (q: string) => call('GET /recipients', { query: { q } }),

  fills: () => call('GET /fills'),
  fill: (id: string) => call('GET /fills/{id}', { params: { id } }),
  startFill: (body: StartFill) => call('POST /fills', { body }),
  saveFill: (id: string, body: SaveFill) => call('PUT /fills/{id}', { params: { id }, body }),
  binFill: (id: string) => call('DELETE /fills/{id}', { params: { id } }),
  restoreFill: (id: string) => call('POST /fills/{id}/restore', { params: { id } }),
  handOver: (id: string, body: HandOver) => call('POST /fills/{id}/hand-over', { params: { id }, body }),
  handOverFile: (id: string, body: HandOver) => download('POST /fills/{id}/hand-over', { params: { id }, body }),
  memory: (id: string, address: string) => call('GET /fills/{id}/memory', { params: { id }, query: { address } }),
  newest: (id: string) => call('GET /fills/{id}/newest', { params: { id } }),
  stitch: (id: string, body: Stitch) => call('POST /fills/{id}/parts', { params: { id }, body }),
  suggest: (id: string, body: Suggest) => call('POST /fills/{id}/suggest', { params: { id }, body }),
  readOriginal: (file: Blob) => call('POST /fills/read', { file }),
  readLetter: (letter: string) => call('GET /fills/read/{letter}', { params: { letter } }),

  person: (address: string) => call('GET /recipients/record', { query: { address } }),
  forget: (address: string) => call('POST /recipients/forget', { body: { address } }),
  lists: () => call('GET /recipients/lists'),
  notWritten: () => call('GET /recipients/do-not-write'),
  refuse: (body: DoNotWrite) => call('PUT /recipients/do-not-write', { body }),
  allow: (address: string) => call('DELETE /recipients/do-not-write', { query: { address } }),

  sendingService: () => call('GET /outgoing/service'),
  outgoing: () => call('GET /outgoing'),
  oneOutgoing: (id: string) => call('GET /outgoing/{id}', { params: { id } }),
  changeOutgoing: (id: string, body: ChangeOutgoing) => call('PATCH /outgoing/{id}', { params: { id }, body }),

  mailings: () => call('GET /mailings'),
  makeMailing: (body: MakeMailing) => call('POST /mailings', { body }),
  mailing: (id: string) => call('GET /mailings/{id}', { params: { id } }),
  mailingProgress: (id: string) => call('GET /mailings/{id}/progress', { params: { id } }),
  mailingRows: (id: string) => call('GET /mailings/{id}/rows', { params: { id } }),
  changeMailing: (id: string, body: ChangeMailing) => call('PATCH /mailings/{id}', { params: { id }, body }),
  addToMailing: (id: string, body: AddRecipients) => call('POST /mailings/{id}/recipients', { params: { id }, body }),
  changeMailed: (id: string, row: string, body: ChangeMailed) =>
    call('PATCH /mailings/{id}/rows/{row}', { params: { id, row }, body }),
  driveMailing: (id: string, body: DriveMailing) => call('POST /mailings/{id}/drive', { params: { id }, body }),

  inbox: (all = false) => call('GET /mailroom/inbox', { query: { done: all ? 'true' : 'false' } }),
  letterDone: (id: string, isDone: boolean) =>
    call('PATCH /mailroom/letters/{id}', { params: { id }, body: { done: isDone } }),
  dropMail: (file: Blob) => call('POST /mailroom/drop', { file }),
  standInClock: () => call('GET /mailroom/clock'),
  forwardClock: (hours: number) => call('POST /mailroom/clock', { body: { hours } }),

  house: () => call('GET /house'),
  saveHouse: (body: SaveHouse) => call('PUT /house', { body }),
  assets: () => call('GET /assets'),
  addAsset: (name: string, file: Blob, exact = false) =>
    call('POST /assets', { query: { name, ...(exact ? { exact: 'true' } : {}) }, file }),
  starters: () => call('GET /starters'),
  pastMails: (name: string, file: Blob) => call('POST /convert/mails', { query: { name }, file }),
  sentTexts: () => call('GET /convert/sent/texts'),
  sentWords: (of: { text?: string; address?: string }) => call('GET /convert/sent', { query: of }),
  chosenSent: (outgoing: string[]) => call('POST /convert/sent/chosen', { body: { outgoing } }),
  convert: (name: string, file: Blob) => call('POST /convert', { query: { name }, file }),

  proofRecord: (name: string) => call('GET /proofs/{name}', { params: { name } }),
  lookAt: (name: string, body: LookAt) => call('POST /proofs/{name}/looked-at', { params: { name }, body }),
  unlook: (name: string, digest: string) =>
    call('DELETE /proofs/{name}/looked-at/{digest}', { params: { name, digest } }),
  setAside: (name: string, body: SetAside) => call('POST /proofs/{name}/set-aside', { params: { name }, body }),
  bringBack: (name: string, digest: string) =>
    call('DELETE /proofs/{name}/set-aside/{digest}', { params: { name, digest } }),
  sendProof: (name: string, body: SendProof) => call('POST /proofs/{name}/send', { params: { name }, body }),
  letters: () => call('GET /mailroom/letters'),
  letter: (id: string) => call('GET /mailroom/letters/{id}', { params: { id } }),

  door: () => call('GET /door'),
  makeFirst: (body: FirstPerson) => call('POST /door/first', { body }),
  signIn: (body: SignIn) => call('POST /door/sign-in', { body }),
  signOut: () => call('POST /door/sign-out'),
  linkFor: (token: string) => call('GET /door/links/{token}', { params: { token } }),
  setPassword: (token: string, password: string) => call('POST /door/password', { body: { token, password } }),
  changePassword: (body: ChangePassword) => call('POST /me/password', { body }),
  sessions: () => call('GET /me/sessions'),
  endSession: (id: string) => call('DELETE /me/sessions/{id}', { params: { id } }),
  endOtherSessions: () => call('DELETE /me/sessions'),
  keys: () => call('GET /me/keys'),
  makeKey: (body: MakeKey) => call('POST /me/keys', { body }),
  endKey: (id: string) => call('DELETE /me/keys/{id}', { params: { id } }),
  people: () => call('GET /people'),
  invite: (body: Invite) => call('POST /people', { body }),
  changePerson: (id: string, body: ChangePerson) => call('PATCH /people/{id}', { params: { id }, body }),
  personLink: (id: string) => call('POST /people/{id}/link', { params: { id } }),
  groups: () => call('GET /people/groups'),
  makeGroup: (body: SaveGroup) => call('POST /people/groups', { body }),
  saveGroup: (id: string, body: SaveGroup) => call('PUT /people/groups/{id}', { params: { id }, body }),
  removeGroup: (id: string) => call('DELETE /people/groups/{id}', { params: { id } }),
  audit: (filter: Partial<AuditQuery>) => call('GET /audit', { query: filter }),

  me: () => call('GET /me'),
  askAddress: (address: string) => call('POST /me/addresses', { body: { address } }),
  dropAddress: (address: string) => call('DELETE /me/addresses/{address}', { params: { address } }),
  confirmAddress: (id: string, address: string) =>
    call('PUT /people/{id}/addresses/{address}', { params: { id, address } }),
  removeAddress: (id: string, address: string) =>
    call('DELETE /people/{id}/addresses/{address}', { params: { id, address } }),
  saveMe: (profile: Profile) => call('PUT /me', { body: profile }),
  saveWays: (ways: HandOverWays) => call('PUT /me/ways', { body: ways }),
  atHand: () => call('GET /me/at-hand'),
  saveAtHand: (names: readonly string[]) => call('PUT /me/at-hand', { body: { names } }),
  saveWorkspace: (workspace: Workspace) => call('PUT /me/workspace', { body: workspace }),
};

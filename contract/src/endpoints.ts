/**
 * All endpoints, in one table. The server's routes, the pages' client, the test of roles and the OpenAPI document are
 * made from it. Literal paths go before those with parameters, whatever their order here.
 */
import * as z from 'zod';
import { addAssetSchema, assetSchema } from './assets.js';
import { MAX_ASSET } from './constants.js';
import {
  convertedSchema,
  convertSchema,
  chosenSentSchema,
  pastWordsSchema,
  sentTextSchema,
  sentWordsSchema,
  starterSchema,
} from './convert.js';
import { FILE, type Endpoint, type EndpointKey } from './endpoint.js';
import {
  fillSchema,
  fillSummarySchema,
  handedOverSchema,
  handOverSchema,
  offeredValuesSchema,
  readOriginalSchema,
  saveFillSchema,
  startFillSchema,
  stitchSchema,
  suggestSchema,
} from './fills.js';
import { agreeSchema, agreedAnswerSchema } from './languages.js';
import { changeFolderSchema, folderRightsSchema, folderSchema, makeFolderSchema } from './folders.js';
import { saveHouseSchema, storedHouseSchema } from './house.js';
import { libraryLookSchema, libraryTakenSchema, packLibrarySchema, takeLibrarySchema } from './library.js';
import {
  deliveredSchema,
  droppedInSchema,
  forwardedSchema,
  forwardSchema,
  letterDoneSchema,
  letterSchema,
  letterSummarySchema,
  standInClockSchema,
} from './mailroom.js';
import {
  askAddressSchema,
  auditEntrySchema,
  auditQuerySchema,
  changePasswordSchema,
  changePersonSchema,
  doorSchema,
  firstPersonSchema,
  groupSchema,
  inviteSchema,
  keySchema,
  linkForSchema,
  makeKeySchema,
  meSchema,
  newKeySchema,
  oneTimeLinkSchema,
  ownAddressSchema,
  personSchema,
  profileSchema,
  saveGroupSchema,
  sessionSchema,
  setPasswordSchema,
  signInSchema,
  waysSchema,
} from './people.js';
import { PROGRAM_ENDPOINTS } from './programs.js';
import { lookAtSchema, proofRecordSchema, sendProofSchema, sentProofSchema, setAsideSchema } from './proofs.js';
import {
  addRecipientsSchema,
  addressSchema,
  atHandSchema,
  changeMailedSchema,
  changeMailingSchema,
  changeOutgoingSchema,
  doNotWriteSchema,
  driveMailingSchema,
  forgetSchema,
  forgottenSchema,
  mailedRowSchema,
  mailingSchema,
  mailingSummarySchema,
  makeMailingSchema,
  notWrittenSchema,
  outgoingSchema,
  outgoingSummarySchema,
  personRecordSchema,
  saveAtHandSchema,
  sendingServiceSchema,
  shownMessageSchema,
  workspaceSchema,
} from './sending.js';
import {
  addRowsSchema,
  changeTableSchema,
  copyTableSchema,
  importTableSchema,
  listTablesSchema,
  makeTableSchema,
  ownSetSchema,
  recipientHitSchema,
  recognisedSchema,
  recogniseSchema,
  storedTableSchema,
  tableSummarySchema,
} from './tables.js';
import { ledgerRowSchema, periodSchema, textInsightSchema, textPeriodSchema } from './insight.js';
import {
  alikeGroupSchema,
  closureSchema,
  createTextSchema,
  hitSchema,
  importedSchema,
  importFilesSchema,
  manySchema,
  nameSchema,
  neighboursSchema,
  saveTextSchema,
  textSummarySchema,
  workingCopySchema,
} from './texts.js';
import {
  answerSchema,
  askSchema,
  becauseSchema,
  changeRemarkSchema,
  dependentsSchema,
  makeCheckpointSchema,
  makeRemarkSchema,
  publishSchema,
  remarkSchema,
  requestSchema,
  restoreStateSchema,
  retireSchema,
  sentFromSchema,
  standingSchema,
  stateSchema,
  subjectSchema,
  templateImpactSchema,
} from './versions.js';
import { changeStepSchema, runSchema, runSummarySchema, startedSeriesSchema, startSeriesSchema } from './series.js';
import {
  driveStandingReplySchema,
  markWrongSchema,
  standingDecisionSchema,
  standingRuleSchema,
  standingReplySchema,
  triedStandingSchema,
} from './standing-replies.js';
import { endTrialSchema, startTrialSchema, trialSchema } from './trials.js';
import { makeWebhookSchema, newWebhookSchema, webhookSchema } from './webhooks.js';
import { findingSchema } from './shared-schemas.js';

const id = z.string().max(60);
const byId = z.object({ id });
const byName = z.object({ name: nameSchema });
/** A text, or the house. */
const bySubject = z.object({ name: subjectSchema });
const byNumber = bySubject.extend({ number: z.coerce.number().int().min(1) });
/** A step of a series, from 0. */
const byStep = byId.extend({ at: z.coerce.number().int().min(0) });
/** A mail, as a standing reply would answer it. */
const byReply = byId.extend({ letter: z.string().max(60) });
const byDigest = byName.extend({ digest: z.string().max(64) });
const byAddress = z.object({ address: z.string().max(320) });

const MB = 1_000_000;
const text = { bytes: 1.5 * MB, values: 120_000 };
const purpose = z.enum(['fill', 'write']);
const target = z.union([nameSchema, z.string().regex(/^house\.yaml\/[a-z][a-z0-9_]{0,79}$/)]);
const table = { as: 'file', bytes: 20 * MB } as const;
const mail = { as: 'file', bytes: 30 * MB } as const;

/** The table. */
export const ENDPOINTS = {
  'GET /health': { role: 'anyone', answer: z.strictObject({ ok: z.boolean(), why: z.string().optional() }) },

  'GET /texts': { role: 'colleague', answer: z.array(textSummarySchema) },
  'POST /texts': { role: 'author', body: createTextSchema, most: text, answer: workingCopySchema, status: 201 },
  'GET /texts/search': {
    role: 'colleague',
    query: z.object({
      q: z.string().max(200).default(''),
      for: purpose.default('fill'),
      /** The address of who is written to: what went to them comes first. */
      to: z.string().max(320).default(''),
    }),
    answer: z.array(hitSchema),
  },
  'GET /texts/alike': { role: 'author', answer: z.array(alikeGroupSchema) },
  'GET /texts/neighbours': { role: 'colleague', query: z.object({ of: target }), answer: neighboursSchema },
  'POST /texts/import': {
    role: 'author',
    body: importFilesSchema,
    most: { bytes: 4 * MB },
    answer: z.array(importedSchema),
  },
  'POST /texts/many': { role: 'author', body: manySchema, most: { bytes: MB } },
  'GET /texts/{name}': { role: 'colleague', params: byName, answer: workingCopySchema },
  'PUT /texts/{name}': {
    role: 'colleague',
    params: byName,
    body: saveTextSchema,
    most: text,
    answer: workingCopySchema,
  },
  'DELETE /texts/{name}': { role: 'colleague', params: byName },
  'POST /texts/{name}/restore': { role: 'colleague', params: byName },
  'GET /texts/{name}/closure': {
    role: 'colleague',
    params: byName,
    query: z.object({ for: purpose.default('write') }),
    answer: closureSchema,
  },
  'GET /texts/{name}/file': { role: 'colleague', params: byName, answer: FILE },

  'GET /folders': { role: 'colleague', answer: z.array(folderSchema) },
  'POST /folders': { role: 'author', body: makeFolderSchema, answer: folderSchema, status: 201 },
  'GET /folders/{id}/rights': { role: 'author', params: byId, answer: folderRightsSchema },
  'PATCH /folders/{id}': { role: 'author', params: byId, body: changeFolderSchema },
  'DELETE /folders/{id}': { role: 'author', params: byId },

  'GET /versions/{name}': { role: 'colleague', params: bySubject, answer: standingSchema },
  'GET /versions/{name}/findings': { role: 'author', params: bySubject, answer: z.array(findingSchema) },
  'POST /versions/{name}/publish': {
    role: 'author',
    params: bySubject,
    body: publishSchema,
    answer: z.strictObject({ version: z.number().optional() }),
  },
  'DELETE /versions/{name}/timed/{id}': { role: 'author', params: bySubject.extend({ id }) },
  'GET /versions/{name}/states/{state}': {
    role: 'colleague',
    params: bySubject.extend({ state: z.string().max(80) }),
    answer: stateSchema,
  },
  'POST /versions/{name}/restore': {
    role: 'author',
    params: bySubject,
    body: restoreStateSchema,
    answer: z.union([workingCopySchema, z.strictObject({ revision: z.number() })]),
  },
  'POST /versions/{name}/checkpoints': { role: 'author', params: byName, body: makeCheckpointSchema },
  'GET /versions/{name}/versions/{number}/sent': {
    role: 'author',
    params: byNumber,
    answer: z.array(sentFromSchema),
  },
  'POST /versions/{name}/versions/{number}/withdraw': { role: 'author', params: byNumber, body: becauseSchema },
  'PUT /versions/{name}/retired': { role: 'author', params: byName, body: retireSchema },
  'DELETE /versions/{name}/retired': { role: 'author', params: byName },
  'GET /versions/{name}/dependents': { role: 'author', params: bySubject, answer: dependentsSchema },
  'GET /versions/{name}/impact/{template}': {
    role: 'author',
    params: bySubject.extend({ template: nameSchema }),
    answer: templateImpactSchema,
  },
  'GET /languages/{name}/agreed': { role: 'author', params: byName, answer: agreedAnswerSchema },
  'POST /languages/{name}/agreed': {
    role: 'author',
    params: byName,
    body: agreeSchema,
    most: { bytes: 4 * MB },
    answer: agreedAnswerSchema,
  },
  'GET /versions/{name}/remarks': { role: 'author', params: byName, answer: z.array(remarkSchema) },
  'POST /versions/{name}/remarks': {
    role: 'author',
    params: byName,
    body: makeRemarkSchema,
    answer: remarkSchema,
    status: 201,
  },
  'PATCH /versions/{name}/remarks/{id}': {
    role: 'author',
    params: byName.extend({ id }),
    body: changeRemarkSchema,
    answer: remarkSchema,
  },

  'GET /versions/{name}/trials': { role: 'author', params: byName, answer: z.array(trialSchema) },
  'POST /versions/{name}/trials': {
    role: 'author',
    params: byName,
    body: startTrialSchema,
    answer: trialSchema,
    status: 201,
  },
  'POST /versions/{name}/trials/{id}/end': {
    role: 'author',
    params: byName.extend({ id }),
    body: endTrialSchema,
    answer: trialSchema,
  },

  'GET /requests': { role: 'author', answer: z.array(requestSchema) },
  'POST /requests/for/{name}': {
    role: 'author',
    params: bySubject,
    body: askSchema,
    most: { bytes: MB },
    answer: requestSchema,
    status: 201,
  },
  'POST /requests/{id}/answer': { role: 'author', params: byId, body: answerSchema, answer: requestSchema },
  'DELETE /requests/{id}': { role: 'author', params: byId },

  // It is noted in the trail, so it is no GET: reading writes nothing there.
  'POST /library/zip': { role: 'colleague', body: packLibrarySchema, most: { bytes: MB }, answer: FILE },
  'POST /library/look': { role: 'author', file: { as: 'file', bytes: 50 * MB }, answer: libraryLookSchema },
  'POST /library/take': {
    role: 'author',
    file: { as: 'form', bytes: 50 * MB },
    body: takeLibrarySchema,
    most: { bytes: 2 * MB },
    answer: libraryTakenSchema,
  },

  'GET /tables': { role: 'author', query: listTablesSchema, answer: z.array(tableSummarySchema) },
  'POST /tables': { role: 'author', query: importTableSchema, file: table, answer: tableSummarySchema, status: 201 },
  'POST /tables/recognise': { role: 'author', query: recogniseSchema, file: table, answer: recognisedSchema },
  'POST /tables/made': {
    role: 'author',
    body: makeTableSchema,
    most: { bytes: 2 * MB },
    answer: tableSummarySchema,
    status: 201,
  },
  'PUT /tables/own/{name}': { role: 'author', params: byName, body: ownSetSchema },
  'GET /tables/{id}': { role: 'author', params: byId, answer: storedTableSchema },
  'PATCH /tables/{id}': {
    role: 'author',
    params: byId,
    body: changeTableSchema,
    most: { bytes: 2 * MB },
    answer: tableSummarySchema,
  },
  'POST /tables/{id}/rows': {
    role: 'author',
    params: byId,
    query: addRowsSchema,
    file: table,
    answer: tableSummarySchema,
  },
  'POST /tables/{id}/copy': {
    role: 'author',
    params: byId,
    body: copyTableSchema,
    answer: tableSummarySchema,
    status: 201,
  },
  'GET /tables/{id}/csv': { role: 'author', params: byId, answer: FILE },
  'GET /tables/{id}/json': { role: 'author', params: byId, answer: FILE },
  'DELETE /tables/{id}': { role: 'author', params: byId },
  'POST /tables/{id}/restore': { role: 'author', params: byId },

  'GET /fills': { role: 'colleague', answer: z.array(fillSummarySchema) },
  'POST /fills': { role: 'colleague', body: startFillSchema, most: { bytes: MB }, answer: fillSchema, status: 201 },
  'POST /fills/read': { role: 'colleague', file: mail, answer: readOriginalSchema },
  'GET /fills/read/{letter}': {
    role: 'colleague',
    params: z.object({ letter: id }),
    answer: readOriginalSchema,
  },
  'GET /fills/{id}': { role: 'colleague', params: byId, answer: fillSchema },
  'PUT /fills/{id}': {
    role: 'colleague',
    params: byId,
    body: saveFillSchema,
    most: { bytes: MB },
    answer: fillSummarySchema,
  },
  'GET /fills/{id}/memory': {
    role: 'colleague',
    params: byId,
    query: z.object({ address: z.string().max(320).default('') }),
    answer: offeredValuesSchema,
  },
  'GET /fills/{id}/newest': { role: 'colleague', params: byId, answer: fillSchema },
  'POST /fills/{id}/parts': { role: 'colleague', params: byId, body: stitchSchema, answer: fillSchema, status: 201 },
  'POST /fills/{id}/suggest': { role: 'colleague', params: byId, body: suggestSchema },
  /** For a way out that is a file, the file. */
  'POST /fills/{id}/hand-over': { role: 'colleague', params: byId, body: handOverSchema, answer: handedOverSchema },
  'DELETE /fills/{id}': { role: 'colleague', params: byId },
  'POST /fills/{id}/restore': { role: 'colleague', params: byId },

  'GET /recipients': {
    role: 'colleague',
    query: z.object({ q: z.string().max(200).default('') }),
    answer: z.array(recipientHitSchema),
  },
  'GET /recipients/lists': { role: 'colleague', answer: z.array(tableSummarySchema) },
  'GET /recipients/record': {
    role: 'colleague',
    query: z.object({ address: addressSchema }),
    answer: personRecordSchema,
  },
  'POST /recipients/forget': { role: 'author', body: forgetSchema, answer: forgottenSchema },
  'GET /recipients/do-not-write': { role: 'colleague', answer: z.array(notWrittenSchema) },
  'PUT /recipients/do-not-write': { role: 'colleague', body: doNotWriteSchema },
  'DELETE /recipients/do-not-write': { role: 'author', query: z.object({ address: addressSchema }) },

  'GET /outgoing': { role: 'colleague', answer: z.array(outgoingSummarySchema) },
  'GET /outgoing/service': { role: 'colleague', answer: sendingServiceSchema },
  'GET /outgoing/{id}': { role: 'colleague', params: byId, answer: outgoingSchema },
  'PATCH /outgoing/{id}': {
    role: 'colleague',
    params: byId,
    body: changeOutgoingSchema,
    answer: outgoingSummarySchema,
  },

  'GET /mailings': { role: 'colleague', answer: z.array(mailingSummarySchema) },
  'POST /mailings': { role: 'colleague', body: makeMailingSchema, answer: mailingSchema, status: 201 },
  'GET /mailings/{id}': { role: 'colleague', params: byId, answer: mailingSchema },
  'GET /mailings/{id}/progress': { role: 'colleague', params: byId, answer: mailingSummarySchema },
  'GET /mailings/{id}/rows': { role: 'colleague', params: byId, answer: z.array(mailedRowSchema) },
  'PATCH /mailings/{id}': {
    role: 'colleague',
    params: byId,
    body: changeMailingSchema,
    most: { bytes: MB },
    answer: mailingSchema,
  },
  'POST /mailings/{id}/recipients': {
    role: 'colleague',
    params: byId,
    body: addRecipientsSchema,
    most: { bytes: 2 * MB },
    answer: mailingSchema,
  },
  'PATCH /mailings/{id}/rows/{row}': {
    role: 'colleague',
    params: byId.extend({ row: id }),
    body: changeMailedSchema,
    most: { bytes: MB },
    answer: mailedRowSchema,
  },
  'POST /mailings/{id}/drive': {
    role: 'colleague',
    params: byId,
    body: driveMailingSchema,
    answer: mailingSummarySchema,
  },

  'GET /series': { role: 'colleague', answer: z.array(runSummarySchema) },
  'POST /series': {
    role: 'colleague',
    body: startSeriesSchema,
    most: { bytes: 3 * MB },
    answer: startedSeriesSchema,
    status: 201,
  },
  'GET /series/{id}': { role: 'colleague', params: byId, answer: runSchema },
  'POST /series/{id}/stop': { role: 'colleague', params: byId, answer: runSchema },
  'GET /series/{id}/steps/{at}': { role: 'colleague', params: byStep, answer: shownMessageSchema },
  'PATCH /series/{id}/steps/{at}': { role: 'colleague', params: byStep, body: changeStepSchema, answer: runSchema },

  'GET /standing': { role: 'colleague', answer: z.array(standingReplySchema) },
  'POST /standing': { role: 'colleague', body: standingRuleSchema, answer: standingReplySchema, status: 201 },
  'GET /standing/decisions': { role: 'colleague', answer: z.array(standingDecisionSchema) },
  'GET /standing/{id}': { role: 'colleague', params: byId, answer: standingReplySchema },
  'PUT /standing/{id}': { role: 'colleague', params: byId, body: standingRuleSchema, answer: standingReplySchema },
  'PATCH /standing/{id}': {
    role: 'colleague',
    params: byId,
    body: driveStandingReplySchema,
    answer: standingReplySchema,
  },
  'POST /standing/{id}/try': { role: 'colleague', params: byId, body: markWrongSchema, answer: triedStandingSchema },
  'GET /standing/{id}/replies/{letter}': { role: 'colleague', params: byReply, answer: shownMessageSchema },

  'GET /webhooks': { role: 'administrator', answer: z.array(webhookSchema) },
  'POST /webhooks': { role: 'administrator', body: makeWebhookSchema, answer: newWebhookSchema, status: 201 },
  'DELETE /webhooks/{id}': { role: 'administrator', params: byId },
  'POST /webhooks/{id}/try': { role: 'administrator', params: byId, answer: webhookSchema },

  'GET /mailroom/letters': { role: 'colleague', answer: z.array(letterSummarySchema) },
  'GET /mailroom/letters/{id}': { role: 'colleague', params: byId, answer: letterSchema },
  'PATCH /mailroom/letters/{id}': { role: 'colleague', params: byId, body: letterDoneSchema },
  'GET /mailroom/inbox': {
    role: 'colleague',
    query: z.object({ done: z.enum(['true', 'false']).default('false') }),
    answer: z.array(deliveredSchema),
  },
  'POST /mailroom/drop': { role: 'colleague', file: mail, answer: droppedInSchema, status: 201 },
  'GET /mailroom/clock': { role: 'colleague', answer: standInClockSchema },
  'POST /mailroom/clock': { role: 'author', body: forwardSchema, answer: forwardedSchema },

  'GET /house': { role: 'colleague', answer: storedHouseSchema },
  'PUT /house': { role: 'author', body: saveHouseSchema, most: { bytes: MB }, answer: storedHouseSchema },
  'GET /house/file': { role: 'colleague', answer: FILE },
  'GET /assets': { role: 'colleague', answer: z.array(assetSchema) },
  'POST /assets': {
    role: 'colleague',
    query: addAssetSchema,
    file: { as: 'file', bytes: MAX_ASSET },
    answer: assetSchema,
    status: 201,
  },
  'GET /assets/{file}': { role: 'colleague', params: z.object({ file: z.string().max(300) }), answer: FILE },
  'GET /starters': { role: 'author', answer: z.array(starterSchema) },
  'POST /convert/mails': { role: 'author', query: convertSchema, file: mail, answer: z.array(pastWordsSchema) },
  'GET /convert/sent/texts': { role: 'author', answer: z.array(sentTextSchema) },
  'GET /convert/sent': { role: 'author', query: sentWordsSchema, answer: z.array(pastWordsSchema) },
  'POST /convert/sent/chosen': { role: 'author', body: chosenSentSchema, answer: z.array(pastWordsSchema) },
  'POST /convert': { role: 'author', query: convertSchema, file: mail, answer: convertedSchema },

  'GET /proofs/{name}': { role: 'author', params: byName, answer: proofRecordSchema },
  'POST /proofs/{name}/looked-at': { role: 'author', params: byName, body: lookAtSchema },
  'DELETE /proofs/{name}/looked-at/{digest}': { role: 'author', params: byDigest },
  'POST /proofs/{name}/set-aside': { role: 'author', params: byName, body: setAsideSchema },
  'DELETE /proofs/{name}/set-aside/{digest}': { role: 'author', params: byDigest },
  'POST /proofs/{name}/send': {
    role: 'author',
    params: byName,
    body: sendProofSchema,
    most: { bytes: 2 * MB },
    answer: sentProofSchema,
  },

  'GET /door': { role: 'anyone', answer: doorSchema },
  'POST /door/first': { role: 'anyone', body: firstPersonSchema },
  'POST /door/sign-in': { role: 'anyone', body: signInSchema },
  'POST /door/sign-out': { role: 'anyone' },
  'GET /door/links/{token}': {
    role: 'anyone',
    params: z.object({ token: z.string().max(200) }),
    answer: linkForSchema,
  },
  'POST /door/password': { role: 'anyone', body: setPasswordSchema },

  'GET /me': { role: 'colleague', answer: meSchema },
  'PUT /me': { role: 'colleague', body: profileSchema, answer: profileSchema },
  'PUT /me/ways': { role: 'colleague', body: waysSchema, answer: waysSchema },
  'GET /me/at-hand': { role: 'colleague', answer: z.array(atHandSchema) },
  'PUT /me/at-hand': { role: 'colleague', body: saveAtHandSchema, answer: z.array(atHandSchema) },
  'PUT /me/workspace': { role: 'administrator', body: workspaceSchema, answer: workspaceSchema },
  'POST /me/password': { role: 'colleague', body: changePasswordSchema },
  'POST /me/addresses': {
    role: 'colleague',
    body: askAddressSchema,
    answer: z.array(ownAddressSchema),
    status: 201,
  },
  'DELETE /me/addresses/{address}': { role: 'colleague', params: byAddress },
  'GET /me/sessions': { role: 'colleague', answer: z.array(sessionSchema) },
  'DELETE /me/sessions': { role: 'colleague' },
  'DELETE /me/sessions/{id}': { role: 'colleague', params: byId },
  'GET /me/keys': { role: 'colleague', answer: z.array(keySchema) },
  'POST /me/keys': { role: 'colleague', body: makeKeySchema, answer: newKeySchema, status: 201 },
  'DELETE /me/keys/{id}': { role: 'colleague', params: byId },

  'GET /people': { role: 'author', answer: z.array(personSchema) },
  'POST /people': {
    role: 'administrator',
    body: inviteSchema,
    answer: personSchema.extend({ link: oneTimeLinkSchema }),
    status: 201,
  },
  'PATCH /people/{id}': { role: 'administrator', params: byId, body: changePersonSchema, answer: personSchema },
  'POST /people/{id}/link': { role: 'administrator', params: byId, answer: oneTimeLinkSchema },
  'PUT /people/{id}/addresses/{address}': { role: 'administrator', params: byId.extend(byAddress.shape) },
  'DELETE /people/{id}/addresses/{address}': { role: 'administrator', params: byId.extend(byAddress.shape) },
  'GET /people/groups': { role: 'author', answer: z.array(groupSchema) },
  'POST /people/groups': {
    role: 'administrator',
    body: saveGroupSchema,
    most: { bytes: MB },
    answer: groupSchema,
    status: 201,
  },
  'PUT /people/groups/{id}': {
    role: 'administrator',
    params: byId,
    body: saveGroupSchema,
    most: { bytes: MB },
    answer: groupSchema,
  },
  'DELETE /people/groups/{id}': { role: 'administrator', params: byId },
  'GET /audit': { role: 'administrator', query: auditQuerySchema, answer: z.array(auditEntrySchema) },
  'GET /audit/csv': { role: 'administrator', query: auditQuerySchema, answer: FILE },

  'GET /insight/ledger': { role: 'colleague', query: periodSchema, answer: z.array(ledgerRowSchema) },
  'GET /insight/ledger/csv': { role: 'colleague', query: periodSchema, answer: FILE },
  'GET /insight/texts/{name}': {
    role: 'author',
    params: byName,
    query: textPeriodSchema,
    answer: textInsightSchema,
  },

  'GET /v1': { role: 'anyone', answer: FILE },
  'GET /v1/openapi.json': { role: 'anyone', answer: z.record(z.string(), z.unknown()) },
  ...PROGRAM_ENDPOINTS,
} as const satisfies Readonly<Record<EndpointKey, Endpoint>>;

/** The table as a type. */
export type Endpoints = typeof ENDPOINTS;
/** Method and path of an endpoint of the table. */
export type EndpointName = keyof Endpoints;

/** What a caller gives: parameters, query and body, as they are before they are parsed. */
export type Given<E> = (E extends { readonly params: infer P extends z.ZodType }
  ? { readonly params: z.input<P> }
  : unknown) &
  (E extends { readonly query: infer Q extends z.ZodType } ? { readonly query?: z.input<Q> } : unknown) &
  (E extends { readonly body: infer B extends z.ZodType } ? { readonly body: z.input<B> } : unknown) &
  (E extends { readonly file: unknown } ? { readonly file: Blob } : unknown);
/** What it answers, as JSON; nothing where it has no answer. */
export type Answered<E> = E extends { readonly answer: infer A extends z.ZodType } ? z.output<A> : void;

/** What the pages need of the contract while they run: constants, and no schema. */

/** What a person is. An administrator also looks after people; a colleague fills. */
export const ROLES = ['administrator', 'author', 'colleague'] as const;
/** One of the roles. */
export type Role = (typeof ROLES)[number];
/** Who may call an endpoint: anyone, anyone signed in, authors and administrators, or administrators only. */
export type Caller = 'anyone' | 'colleague' | 'author' | 'administrator';
/** What a personal key may do. */
export const SCOPES = ['read', 'render', 'begin', 'recipients', 'publish'] as const;
/** One of the scopes of a key. */
export type Scope = (typeof SCOPES)[number];
/** Each holds the ones before it: to see and fill, to write, to publish, to manage the folder itself. */
export const RIGHTS = ['fill', 'write', 'publish', 'manage'] as const;
/** One of the rights in a folder. */
export type Right = (typeof RIGHTS)[number];

/** The least that a password has. Longer sentences are better than odd signs, which are not asked for. */
export const MIN_PASSWORD = 10;
/** The house has versions as texts have. */
export const HOUSE_NAME = 'house.yaml';
/** The most that one file, and the attachments of one text together, may have, in bytes. */
export const MAX_ASSET = 20_000_000;
/** The most an image may have that is shown in a message, in bytes. */
export const MAX_IMAGE = 8_000_000;
/** The weeks that a line of the ledger shows. */
export const LEDGER_WEEKS = 26;
/** Below this many messages, looking back gives counts and no shares. */
export const FEWEST_FOR_SHARES = 10;
/** What webhooks are told of: a message was handed over some way, went through the mail service, was answered, came back. */
export const WEBHOOK_EVENTS = ['handed over', 'sent', 'answered', 'bounced'] as const;
/** One of the things that webhooks are told of. */
export type WebhookEvent = (typeof WEBHOOK_EVENTS)[number];
/** Whether something was told: it waits for its first or next try, was taken, or was tried too often. */
export const DELIVERY_STATES = ['waiting', 'told', 'given up'] as const;
/** The most people for whom a series is started at once. */
export const MOST_STARTED = 500;
/** What a standing reply does with a mail: it is offered, left as a draft, or sent. */
export const MAIL_ACTS = ['suggest', 'draft', 'send'] as const;
/** One of the things that a standing reply does. */
export type MailAct = (typeof MAIL_ACTS)[number];
/** The most that a standing reply may send a day. */
export const MOST_STANDING = 200;
/** Where a series under way stands. */
export const RUN_STATES = ['going', 'done', 'stopped'] as const;
/** One of the states of a series under way. */
export type RunState = (typeof RUN_STATES)[number];
/**
 * Where a step stands: it waits for its moment, or for somebody to look at it; it has gone; its condition did not hold;
 * its day had passed; somebody left it out.
 */
export const STEP_STATES = ['waiting', 'look', 'gone', 'left out', 'passed', 'skipped'] as const;
/** One of the states of a step. */
export type StepState = (typeof STEP_STATES)[number];
/** What can be the outcome of a trial. */
export const TRIAL_OUTCOMES = ['answered', 'opened', 'followed'] as const;
/** One of the outcomes of a trial. */
export type TrialOutcome = (typeof TRIAL_OUTCOMES)[number];
/** The fewest versions that are tried side by side. */
export const FEWEST_ARMS = 2;
/** The most versions that are tried side by side. */
export const MOST_ARMS = 3;

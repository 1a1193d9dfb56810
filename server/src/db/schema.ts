/**
 * The tables. Frozen documents, versions, handed-over messages and the audit trail are never changed; deleting is a date
 * in the bin. Moments are ISO 8601 in UTC, days ISO dates.
 */
export * from './schema/texts.js';
export * from './schema/versions.js';
export * from './schema/people.js';
export * from './schema/tables.js';
export * from './schema/messages.js';
export * from './schema/proofs.js';
export * from './schema/mailroom.js';
export * from './schema/sending.js';
export * from './schema/series.js';
export * from './schema/standing-replies.js';
export * from './schema/webhooks.js';
export * from './schema/generations.js';

/** What happens to a message between its template and its being handed over. */
export * from './changes.js';
export * from './difference.js';
export * from './values-in-text.js';
export * from './joins.js';
export * from './recipient.js';
export * from './replace.js';
export * from './reply.js';
export * from './rewording.js';
export * from './unconfirmed.js';

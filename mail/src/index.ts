/** Messages as mail: made and read, in Node only. */
export * from './assets.js';
export * from './invitation.js';
export * from './mbox.js';
export * from './imap.js';
export * from './message.js';
export * from './past.js';
export * from './read.js';
export * from './send.js';

/** What happened to messages, and how sure one can be of it. No clock and no random source of its own. */
export * from './rate.js';
export * from './trial.js';
export * from './rewording.js';
export * from './proposals.js';
export * from './time.js';
export * from './replies.js';

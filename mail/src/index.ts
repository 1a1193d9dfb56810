/** Messages as mail: made here, in Node only. */
export * from './assets.js';
export * from './message.js';

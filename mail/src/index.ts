/** Messages as mail: made here, in Node only. */
export * from './message.js';

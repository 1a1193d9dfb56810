/** What a worker thread of the built server begins with; from sources it is `thread.mjs`. */
export { perform as default } from './tasks.js';

/** Schemas that forms of the pages are checked with; few, since schemas are large. */
export { inviteSchema } from './people.js';

/** Schemas that forms of the pages are checked with; few, since schemas are large. */
export {
  changePasswordSchema,
  firstPersonSchema,
  inviteSchema,
  makeKeySchema,
  profileSchema,
  saveGroupSchema,
  setPasswordSchema,
  signInSchema,
  waysSchema,
} from './people.js';
export { makeFolderSchema } from './folders.js';
export { becauseSchema, publishSchema } from './versions.js';
export { columnSchema, tableTitleSchema } from './tables.js';
export { makeWebhookSchema } from './webhooks.js';

/** Schemas that forms of the pages are checked with; few, since schemas are large. */
export {
  changePasswordSchema,
  firstPersonSchema,
  inviteSchema,
  makeKeySchema,
  saveGroupSchema,
  setPasswordSchema,
  signInSchema,
} from './people.js';
export { makeFolderSchema } from './folders.js';
export { becauseSchema, publishSchema } from './versions.js';
export { importTableSchema } from './tables.js';

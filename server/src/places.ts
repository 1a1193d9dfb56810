/** Where files of the server stand, whether it runs from its sources or from what a build made of them. */
import { fileURLToPath } from 'node:url';

// This file is one folder below the server's in both cases: in `src`, and bundled in `dist`.
const at = (path: string): string => fileURLToPath(new URL(path, import.meta.url));

/** True when the built files run. */
const isBuilt = import.meta.url.endsWith('.js');

/** Folders and files by what they hold. */
export const PLACES = {
  /** The built pages of the browser's part. */
  pages: at('../../web/dist'),
  migrations: at('../migrations'),
  starters: at('../starters'),
  /** What a worker thread begins with. */
  thread: at(isBuilt ? './thread.js' : './workers/thread.mjs'),
} as const;

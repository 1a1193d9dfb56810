/** What is wrong with a database, in words for whoever runs the server. */

/** The code of answers that tell of such trouble. */
export const DATABASE_TROUBLE = 'database';

const TROUBLES: readonly (readonly [RegExp, string])[] = [
  [
    /SQLITE_CORRUPT|malformed|SQLITE_NOTADB|file is not a database/,
    'The database is damaged. Put a backup in its place with npm run restore.',
  ],
  [
    /SQLITE_READONLY|readonly database|read-only|EROFS/,
    'The database cannot be written: its file or folder is read-only.',
  ],
  [
    /SQLITE_CANTOPEN|unable to open|EACCES|EPERM/,
    'The database cannot be opened: its file or folder is not accessible.',
  ],
  [/SQLITE_IOERR|disk I\/O error/, 'The database cannot be read: its disk reports errors.'],
  [/SQLITE_FULL|disk is full|ENOSPC/, 'The disk of the server is full.'],
];

/** The trouble that an error tells of; undefined for errors of any other kind. */
export function troubleOf(error: unknown): string | undefined {
  const said: string[] = [];
  for (let each = error; each !== undefined && each !== null && said.length < 5; each = (each as Error).cause) {
    const { code = '', message = '' } = each as { code?: string; message?: string };
    // A failed query quotes what was to be written; that tells nothing of the database.
    said.push(`${code} ${message.replace(/\bparams:[\s\S]*$/, '').replace(/^Failed query:[\s\S]*$/, '')}`);
  }
  const words = said.join(' ');
  return TROUBLES.find(([pattern]) => pattern.test(words))?.[1];
}

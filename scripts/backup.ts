/**
 * `npm run backup -- FILE` copies the database, `npm run restore -- FILE` puts a copy in its place; both while the
 * application runs. Which database is said by `DATABASE_URL`, as for `npm start`.
 */
import { BackupProblem, backUp, restore } from '../server/src/db/backup.js';

const [act, file] = process.argv.slice(2);
const url = process.env.DATABASE_URL ?? 'file:data/vocabula.db';
if ((act !== 'backup' && act !== 'restore') || file === undefined) {
  console.error('Say to which file: npm run backup -- FILE, npm run restore -- FILE');
  process.exit(2);
}
try {
  if (act === 'backup') {
    await backUp(url, file);
    console.log(`Copied to ${file}.`);
  } else console.log(`Restored ${await restore(url, file)} rows from ${file}.`);
} catch (problem) {
  if (!(problem instanceof BackupProblem)) throw problem;
  console.error(problem.message);
  process.exit(1);
}

/** `vocabula`: the template language at the command line, for people who keep their wording in version control. */
import { run } from './run.js';

process.exitCode = await run(process.argv.slice(2));

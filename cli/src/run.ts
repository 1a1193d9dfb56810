/** Runs a call of the command line. */
import { readCall, UsageError, type Call } from './arguments.js';
import { check } from './check.js';
import { cover } from './cover.js';
import { derive } from './derive.js';
import { format } from './format.js';
import { questions } from './questions.js';
import { render } from './render.js';

const COMMANDS: Readonly<Record<string, (call: Call) => number | Promise<number>>> = {
  check,
  render,
  format,
  questions,
  cover,
  derive,
};

/** Runs one call; the exit code is 0, 1 for errors in templates, 2 for a call that cannot be understood. */
export async function run(args: readonly string[]): Promise<number> {
  try {
    const call = readCall(args);
    return await (COMMANDS[call.command] as (call: Call) => number | Promise<number>)(call);
  } catch (error) {
    if (!(error instanceof UsageError)) throw error;
    process.stderr.write(`vocabula: ${error.message}\n`);
    return 2;
  }
}

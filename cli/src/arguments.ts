/** The command line's words. */
import { parseArgs } from 'node:util';

/** A call that cannot be understood: one line for people, exit code 2. */
export class UsageError extends Error {}

export interface Call {
  readonly command: string;
  readonly paths: readonly string[];
  readonly options: Readonly<Record<string, string | boolean | undefined>>;
}

const TEXT = { type: 'string' } as const;
const OPTIONS: Readonly<Record<string, Readonly<Record<string, { readonly type: 'string' | 'boolean' }>>>> = {
  check: { library: TEXT, as: TEXT },
  render: {
    library: TEXT,
    recipients: TEXT,
    sender: TEXT,
    answers: TEXT,
    today: TEXT,
    timezone: TEXT,
    as: TEXT,
    out: TEXT,
  },
  format: { check: { type: 'boolean' } },
  questions: { library: TEXT, answers: TEXT, as: TEXT },
  derive: { out: TEXT, locale: TEXT, as: TEXT },
  cover: { library: TEXT, strength: TEXT, seed: TEXT, today: TEXT, timezone: TEXT, as: TEXT },
};

/** Reads the arguments. Throws UsageError. */
export function readCall(args: readonly string[]): Call {
  const [command, ...rest] = args;
  const options = command === undefined ? undefined : OPTIONS[command];
  if (command === undefined || !options)
    throw new UsageError(
      `use: vocabula check|render|format|questions|cover|derive PATH… (${command === undefined ? 'no command given' : `there is no command “${command}”`})`,
    );
  try {
    const { values, positionals } = parseArgs({ args: rest, options, allowPositionals: true, strict: true });
    if (positionals.length === 0) throw new UsageError(`${command}: name a file`);
    if (!['check', 'format', 'derive'].includes(command) && positionals.length > 1)
      throw new UsageError(`${command}: name one file`);
    return { command, paths: positionals, options: values };
  } catch (error) {
    if (error instanceof UsageError) throw error;
    throw new UsageError(`${command}: ${error instanceof Error ? error.message.split('\n')[0] : 'cannot be read'}`);
  }
}

/** One of the words an option allows. */
export function oneOf<T extends string>(call: Call, name: string, allowed: readonly T[]): T {
  const given = call.options[name];
  const value = given === undefined ? allowed[0] : allowed.find((each) => each === given);
  if (value === undefined) throw new UsageError(`${call.command}: --${name} takes ${allowed.join(', ')}`);
  return value;
}

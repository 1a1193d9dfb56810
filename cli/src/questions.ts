/** `questions`: what a template asks, in order. */
import { compile, questions as ask } from '@vocabula/core';
import { oneOf, type Call } from './arguments.js';
import { readObject, readToday } from './inputs.js';
import { FolderLibrary, printedLine } from './library.js';

export function questions(call: Call): number {
  const as = oneOf(call, 'as', ['text', 'json']);
  const [path = ''] = call.paths;
  const library = new FolderLibrary(FolderLibrary.rootFor(path, call.options.library as string | undefined));
  const text = library.load(path);
  const program = compile(text, { library, house: library.house });
  const answers = readObject(call.options.answers as string | undefined, 'the answers');
  const list = ask(program, { answers, today: readToday(call, text.document.attrs.front.timezone) });
  if (as === 'json')
    process.stdout.write(
      `${JSON.stringify(
        list.map(({ key, type, label, required }) => ({ key, type, label, required })),
        null,
        2,
      )}\n`,
    );
  else
    for (const { key, type, label, required, source } of list)
      process.stdout.write(
        `${label} (${key}, ${type}${required ? ', required' : ''}${source === 'none' ? '' : `, from ${source}`})\n`,
      );
  const errors = [
    ...library.findings,
    ...[...text.findings, ...program.findings].map((finding) => ({ finding, file: path })),
  ].filter(({ finding }) => finding.level === 'error');
  for (const { finding, file } of errors) process.stderr.write(`${printedLine(library.print(finding, file))}\n`);
  return errors.length > 0 ? 1 : 0;
}

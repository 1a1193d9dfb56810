/** `check`: findings for files or folders. */
import { checkProgram, compile, error, type Finding } from '@vocabula/core';
import { oneOf, type Call } from './arguments.js';
import { readToday } from './inputs.js';
import { FolderLibrary, printedLine, templateFiles, type Printed } from './library.js';

export function check(call: Call): number {
  const as = oneOf(call, 'as', ['text', 'json']);
  const printed: Printed[] = [];
  const today = readToday(call, undefined);
  for (const path of call.paths) {
    const library = new FolderLibrary(FolderLibrary.rootFor(path, call.options.library as string | undefined));
    const calls = new Map<string, string>();
    for (const { file, finding } of library.findings) printed.push(library.print(finding, file));
    for (const file of templateFiles(path)) {
      const text = library.load(file);
      const { call: callWord } = text.document.attrs.front;
      const findings: Finding[] = [
        ...text.findings,
        ...library.missingAssets(text),
        ...checkProgram(text, compile(text, { library, house: library.house, today }), [], today),
      ];
      const other = callWord === undefined ? undefined : calls.get(callWord);
      if (other !== undefined)
        findings.push(
          error({ code: 'duplicate-key', why: 'call-word', word: callWord, file: other }, { attribute: 'call' }),
        );
      else if (callWord !== undefined) calls.set(callWord, file);
      printed.push(...findings.map((finding) => library.print(finding, file)));
    }
  }
  const seen = new Set<string>();
  const distinct = printed.filter((finding) => !seen.has(JSON.stringify(finding)) && seen.add(JSON.stringify(finding)));
  if (as === 'json') process.stdout.write(`${JSON.stringify(distinct, null, 2)}\n`);
  else process.stdout.write(distinct.map((finding) => `${printedLine(finding)}\n`).join(''));
  return distinct.some((finding) => finding.level === 'error') ? 1 : 0;
}

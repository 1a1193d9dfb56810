/** `format`: rewrites files in canonical form. */
import { readFileSync, writeFileSync } from 'node:fs';
import { hasErrors, placeInWords } from '@vocabula/core';
import { readText, writeText } from '@vocabula/core/markdown';
import { UsageError, type Call } from './arguments.js';
import { templateFiles } from './library.js';

export function format(call: Call): number {
  const onlyCheck = call.options.check === true;
  let failed = false;
  for (const file of call.paths.flatMap(templateFiles)) {
    const source = read(file);
    const { document, findings } = readText(source);
    if (hasErrors(findings)) {
      const first = findings.find((finding) => finding.level === 'error');
      process.stdout.write(
        `${file}: error: left as it is: ${first ? `${placeInWords(first.place)}: ${first.message}` : ''}\n`,
      );
      failed = true;
      continue;
    }
    const formatted = writeText(document);
    if (formatted === source) continue;
    // The promise that nothing renders differently is kept here, not hoped for.
    if (JSON.stringify(readText(formatted).document) !== JSON.stringify(document)) {
      process.stdout.write(`${file}: error: left as it is: its canonical form would not read back the same\n`);
      failed = true;
      continue;
    }
    if (onlyCheck) failed = true;
    else writeFileSync(file, formatted);
    process.stdout.write(`${file}: ${onlyCheck ? 'not in canonical form' : 'rewritten'}\n`);
  }
  return failed ? 1 : 0;
}

function read(file: string): string {
  try {
    return readFileSync(file, 'utf8');
  } catch {
    throw new UsageError(`cannot read ${file}`);
  }
}

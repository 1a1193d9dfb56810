/** `cover`: the covering set of a template. */
import { compile } from '@vocabula/core';
import { cover as coverOf, reasonsOf, type Covering } from '@vocabula/core/cover';
import { oneOf, UsageError, type Call } from './arguments.js';
import { readToday } from './inputs.js';
import { FolderLibrary, printedLine } from './library.js';

export function cover(call: Call): number {
  const as = oneOf(call, 'as', ['text', 'json']);
  const strength = oneOf(call, 'strength', ['2', '3']) === '3' ? 3 : 2;
  const seed = readSeed(call);
  const [path = ''] = call.paths;
  const library = new FolderLibrary(FolderLibrary.rootFor(path, call.options.library as string | undefined));
  const text = library.load(path);
  const program = compile(text, { library, house: library.house });
  const today = readToday(call, text.document.attrs.front.timezone);
  const covering = coverOf(program, { today, strength, seed });
  process.stdout.write(as === 'json' ? `${JSON.stringify(inJson(covering), null, 2)}\n` : inWords(covering, strength));
  const errors = [
    ...library.findings,
    ...[...text.findings, ...program.findings].map((finding) => ({ finding, file: path })),
  ].filter(({ finding }) => finding.level === 'error');
  for (const { finding, file } of errors) process.stderr.write(`${printedLine(library.print(finding, file))}\n`);
  return errors.length > 0 ? 1 : 0;
}

function readSeed(call: Call): number {
  const { seed = '1' } = call.options;
  if (typeof seed !== 'string' || !/^\d{1,9}$/.test(seed)) throw new UsageError('cover: --seed takes a whole number');
  return Number(seed);
}

function inJson({ factors, cases, covered, impossible, notFound }: Covering): unknown {
  return {
    factors: Object.fromEntries(factors.map(({ name, levels }) => [name, levels.map(({ key }) => key)])),
    pairs: covered,
    unreachable: impossible.length,
    notFound: notFound.length,
    cases: cases.map(({ levels }) =>
      Object.fromEntries(
        factors.flatMap(({ name, levels: all }, at) => {
          const level = all[levels[at] ?? -1];
          return level ? [[name, level.key]] : [];
        }),
      ),
    ),
  };
}

function inWords({ factors, cases, covered, impossible, notFound }: Covering, strength: 2 | 3): string {
  const what = strength === 3 ? 'triples' : 'pairs';
  const lines = [
    `${cases.length} ${cases.length === 1 ? 'message shows' : 'messages show'} ${notFound.length > 0 ? '' : 'all '}${covered} ${what}; ${impossible.length} cannot happen${notFound.length > 0 ? `; ${notFound.length} not found` : ''}`,
  ];
  cases.forEach(({ levels }, index) => {
    const said = factors.flatMap(({ name, levels: all }, at) => {
      const level = all[levels[at] ?? -1];
      return level ? [`${name}=${level.key}`] : [];
    });
    lines.push(`${index + 1}  ${said.join('  ') || 'nothing varies'}`);
  });
  for (const { because, count } of reasonsOf({ impossible })) lines.push(`cannot happen (${count}): ${because}`);
  return `${lines.join('\n')}\n`;
}

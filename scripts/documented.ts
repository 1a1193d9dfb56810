/**
 * Part of `npm run lint`: everything that core, contract and mail export says in a comment what it is for. Prints what
 * does not; ends with 1 if there is something. Types that are made from a schema are described by the schema.
 */
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';

const PACKAGES = ['core', 'contract', 'mail'];
const FROM_A_SCHEMA = /^export type \w+ = (?:Readonly<)?z\.infer/;

function undocumented(path: string): string[] {
  const source = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true);
  return source.statements.flatMap((statement) => {
    const isExported =
      ts.canHaveModifiers(statement) &&
      ts.getModifiers(statement)?.some(({ kind }) => kind === ts.SyntaxKind.ExportKeyword) === true;
    if (!isExported || ts.getJSDocCommentsAndTags(statement).length > 0) return [];
    if (FROM_A_SCHEMA.test(statement.getText())) return [];
    const { line } = source.getLineAndCharacterOfPosition(statement.getStart());
    return [`${path}:${line + 1} ${statement.getText().split('\n')[0]}`];
  });
}

const found = PACKAGES.flatMap((name) =>
  readdirSync(join(name, 'src'), { recursive: true, encoding: 'utf8' })
    .filter((file) => file.endsWith('.ts') && !file.endsWith('.test.ts'))
    .flatMap((file) => undocumented(join(name, 'src', file))),
);
for (const each of found) console.error(`${each}: say what it is for.`);
process.exit(found.length > 0 ? 1 : 0);

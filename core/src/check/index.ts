/** The checks, and the one way to run them all. A new check is a file here and a line in this table. */
import { languageOf } from '../values/intl.js';
import { compile, type CompileOptions } from '../compile/compile.js';
import type { Program } from '../compile/program.js';
import { distinct, type Finding } from '../findings/finding.js';
import type { NamedDocument } from '../template/document.js';
import { attachmentMissing } from './attachment-missing.js';
import { fixedLines, type Check } from './check.js';
import { doubledSpace } from './doubled-space.js';
import { doubledWord } from './doubled-word.js';
import { kept } from './kept.js';
import { leftoverMarker } from './leftover-marker.js';
import { longSubject } from './long-subject.js';
import { missingAlt } from './missing-alt.js';
import { factAsText } from './fact-as-text.js';
import { offStyle } from './off-style.js';
import { unusedVariable } from './unused-variable.js';
import { weekdayMismatch } from './weekday-mismatch.js';

const CHECKS: readonly (() => Check)[] = [
  () => leftoverMarker,
  () => unusedVariable,
  () => kept,
  () => doubledWord,
  () => doubledSpace,
  () => attachmentMissing,
  () => weekdayMismatch,
  () => longSubject,
  () => missingAlt,
  () => offStyle,
  () => factAsText,
];

/** Compiles a text and checks it: errors of the template first, then advice. */
export function check(named: NamedDocument, options: CompileOptions): Finding[] {
  return checkProgram(named, compile(named, options));
}

/** Checks a text that is compiled already. */
export function checkProgram({ document }: NamedDocument, program: Program): Finding[] {
  const language = languageOf(program.locale);
  const context = { document, program, language, lines: fixedLines(document) };
  const advice = CHECKS.map((each) => each())
    .filter((each) => !each.languages || each.languages.includes(language))
    .flatMap((each) => each.run(context));
  return distinct([...program.findings, ...advice]);
}

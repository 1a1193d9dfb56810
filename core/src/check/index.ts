/** The checks, and the one way to run them all. A new check is a file here and a line in one of these two tables. */
import { languageOf } from '../values/intl.js';
import { compile, type CompileOptions } from '../compile/compile.js';
import type { Origin, Program } from '../compile/program.js';
import { distinct, type Finding, type Place, advice } from '../findings/finding.js';
import { tracedLines } from '../proof/trace/lines.js';
import { render, valuesOf, type Message, type RenderInput } from '../render/render.js';
import type { NamedDocument, TextDocument } from '../template/document.js';
import { nodeAt } from '../template/walk.js';
import { aOrAn, aOrAnBefore } from './a-or-an.js';
import { attachmentMissing } from './attachment-missing.js';
import { brokenSeries } from './broken-series.js';
import { fixedLines, type Check, type CheckContext } from './check.js';
import { doubledSpace } from './doubled-space.js';
import { doubledWord } from './doubled-word.js';
import { factAsText } from './fact-as-text.js';
import type { FilledCheck } from './filled.js';
import { fixedAddress } from './fixed-address.js';
import { fixedDate } from './fixed-date.js';
import { headingSkipped } from './heading-skipped.js';
import { joinedInRepeat } from './joined-in-repeat.js';
import { kept } from './constant-passages.js';
import { largeMessage } from './large-message.js';
import { leftoverMarker } from './leftover-marker.js';
import { longSubject } from './long-subject.js';
import { lostLook } from './lost-look.js';
import { lowContrast } from './low-contrast.js';
import { missingAlt } from './missing-alt.js';
import { mixedGreeting } from './mixed-greeting.js';
import { offStyle } from './off-style.js';
import { pastDate } from './past-date.js';
import { reviewOverdue } from './review-overdue.js';
import { sentenceStart } from './sentence-start.js';
import { strayValue } from './stray-value.js';
import { tableWithoutHeader } from './table-without-header.js';
import { titleAsSubject } from './title-as-subject.js';
import { unbalancedPunctuation } from './unbalanced-punctuation.js';
import { unusedVariable } from './unused-variable.js';
import { bareLink, vagueLink } from './vague-link.js';
import { weekdayMismatch } from './weekday-mismatch.js';

/** Of a template as it is written. */
const CHECKS: readonly (() => Check)[] = [
  () => leftoverMarker,
  () => unusedVariable,
  () => joinedInRepeat,
  () => kept,
  () => doubledWord,
  () => doubledSpace,
  () => attachmentMissing,
  () => weekdayMismatch,
  () => fixedAddress,
  () => fixedDate,
  () => strayValue,
  () => longSubject,
  () => titleAsSubject,
  () => mixedGreeting,
  () => aOrAn,
  () => unbalancedPunctuation,
  () => vagueLink,
  () => bareLink,
  () => headingSkipped,
  () => tableWithoutHeader,
  () => missingAlt,
  () => offStyle,
  () => lowContrast,
  () => lostLook,
  () => factAsText,
  () => reviewOverdue,
];

/** Of a message that came of it. */
const FILLED_CHECKS: readonly (() => FilledCheck)[] = [
  () => pastDate,
  () => brokenSeries,
  () => sentenceStart,
  () => aOrAnBefore,
  () => largeMessage,
];

const knows = ({ languages }: { readonly languages?: readonly string[] }, language: string): boolean =>
  !languages || languages.includes(language);

/** Compiles a text and checks it: errors of the template first, then advice. */
export function check(named: NamedDocument, options: CompileOptions): Finding[] {
  return checkProgram(named, compile(named, options));
}

/**
 * Checks a text that is compiled already.
 * @param people sample recipients, whose names are not to stand in it as fixed text
 * @param today an ISO day; without one nothing is overdue
 */
export function checkProgram(
  { document }: NamedDocument,
  program: Program,
  people: CheckContext['people'] = [],
  today?: string,
): Finding[] {
  const language = languageOf(program.locale);
  const context = { document, program, language, lines: fixedLines(document), people, ...(today ? { today } : {}) };
  const found = CHECKS.map((each) => each())
    .filter((each) => knows(each, language))
    .flatMap((each) => each.run(context));
  return distinct([...program.findings, ...found]);
}

/**
 * Checks one message, where values and seams are. What it finds beside `message.findings`.
 * @param message rendered with its trace from the same program and input; made here if left out
 */
export function checkMessage(
  { document }: NamedDocument,
  program: Program,
  input: RenderInput,
  message: Message = render(program, input, { trace: true }),
): Finding[] {
  const language = languageOf(program.locale);
  let values: Map<string, ReturnType<typeof valuesOf>[number]['value']> | undefined;
  const value = (key: string): ReturnType<typeof valuesOf>[number]['value'] => {
    values ??= new Map(valuesOf(program, input).map((each) => [each.slot.key, each.value]));
    return values.get(key);
  };
  const context = {
    document,
    program,
    message,
    lines: tracedLines(message),
    language,
    today: input.today,
    value,
  };
  return FILLED_CHECKS.map((each) => each())
    .filter((each) => knows(each, language))
    .flatMap((each) => each.run(context))
    .map(({ data, origin, level }) => advice(data, origin ? placeOf(origin, program, document) : {}, level));
}

/** Where an origin is: what stands in a wording is at the placeholder that shows it. */
function placeOf({ text, path }: Origin, program: Program, document: TextDocument): Place {
  if (text !== program.name) return { text, path };
  let at = path;
  while (at.length > 0 && !nodeAt(document, at)) at = at.slice(0, -1);
  return { path: at };
}

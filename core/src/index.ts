/** The template language. Everything other packages may use of it. */
export * from './findings/finding.js';
export { random, type Random } from './random.js';
export * from './template/condition.js';
export * from './template/document.js';
export {
  isClock,
  MOST_DAYS,
  MOST_STEPS,
  ON_ANSWER,
  OUTCOME_FLAGS,
  readWait,
  writeWait,
  type OnAnswer,
  type OutcomeFlag,
  type Step,
} from './template/steps.js';
export { childrenOf, nodeAt, visit } from './template/walk.js';
export * from './template/keys.js';
export * from './template/variable.js';
export { beyondBounds, MOST_OF_TEXT } from './template/bounds.js';
export { normalise, normaliseInline, normaliseLine, sameMark, sortMarks } from './template/normalise.js';
export * from './values/index.js';
export { labelOf, MOST_OPTIONS, tooManyOptions } from './values/choice.js';
export { dayFormatter, dayFromNumber, dayIn, dayNumber, isDay, weekdayNumber } from './values/date.js';
export { isImageSource } from './values/image.js';
export { instantOf, isZone, offsetAt, wallAt } from './values/zone.js';
export { timeFormatter } from './values/time.js';
export { isEmail, safeUrl } from './values/address.js';
export {
  addressesIn,
  firstAddressIn,
  foldedMailbox,
  isMailbox,
  readMailbox,
  writtenEnvelope,
  writtenMailbox,
  type Mailbox,
} from './values/mailbox.js';
export { escapeHtml } from './words/escape.js';
export { compileBundle, signatureFor, type Bundle } from './bundle/bundle.js';
export { compile, type CompileOptions } from './compile/compile.js';
export {
  DEFAULT_LOCALE,
  FACT_TYPES,
  MESSAGE_WIDTH,
  PLAIN_HOUSE,
  type Fact,
  type House,
  type HouseStyle,
  type NamedColour,
} from './house/house.js';
export { contrast, darkTint, isHex, tint } from './house/colour.js';
export { factValues, valueOn } from './house/facts.js';
export { houseDifferences, type HouseDifference } from './house/differences.js';
export type { Line, Origin, Program, SeriesProgram, Slot, StepProgram } from './compile/program.js';
export { namesIncluded, namesNeeded } from './compile/inclusions.js';
export type { Library } from './compile/texts.js';
export { conditionInWords } from './compile/wording.js';
export {
  render,
  renderHtml,
  valuesOf,
  type Envelope,
  type Fields,
  type Invitation,
  type Offered,
  type Message,
  type RenderInput,
  type RenderOptions,
  type Stretch,
} from './render/render.js';
export { meets, type Source } from './render/frame.js';
export { direction } from './values/intl.js';
export { PROOF_CLASS, PROOF_DATA, readLineAddress } from './render/proof-markup.js';
export { forPasting, structureOnly, withoutImages } from './render/reduced-html.js';
export { darkRules, frameTags, htmlStyles } from './render/styles.js';
export {
  comparisonInWords,
  comparisonsOf,
  familyOf,
  takesValue,
  type ComparisonName,
} from './expression/comparisons.js';
export {
  isGroup,
  readConditions,
  writeConditions,
  type Comparison,
  type ConditionGroup,
  type ConditionTree,
  type TypeOf,
} from './expression/conditions.js';
export { sayConditions } from './expression/say.js';
export { namesIn } from './expression/names.js';
export * from './revise/index.js';
export { questions, type Question } from './questions/questions.js';
export { check, checkMessage, checkProgram } from './check/index.js';
export { findMarkers, mayHoldMarkers, writtenAlternatives, type Marker } from './check/markers.js';
export { firstOf, guessVariable } from './check/marker-guess.js';
export { findSignOff, isClosing, isGreeting } from './words/closing.js';
export { showDay, understandDay } from './words/days.js';
export { fold, holdsWords } from './words/fold.js';
export { likeness, near, shinglesOf } from './words/near.js';
export { sameValue } from './words/same.js';
export { bodyText } from './words/lines.js';
export { measure, type Measure } from './words/measure.js';
export { readLine, writeLine } from './formats/markdown/line.js';

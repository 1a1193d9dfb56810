/** Series: messages to one recipient over time. Pure computation: moments are passed in. */

export { dueOf, isWorkday, type Calendar, type Due } from './schedule.js';
export {
  answersOf,
  foresee,
  decide,
  NO_OUTCOMES,
  seriesQuestions,
  type Decided,
  type Foreseen,
  type Outcomes,
  type SeriesQuestion,
} from './series.js';
export { exampleAnswers, tryOut, type Path, type TriedOut, type TryOptions } from './paths.js';

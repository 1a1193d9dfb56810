/** Standing replies: rules that answer mail that comes in. Pure computation: mails and moments are passed in. */
export { holdsFor, mailCondition, type MailCondition } from './condition.js';
export { decideOn, type StandingAct, type StandingDecision, type MailRule, type Surroundings } from './decide.js';
export { factsOf, MAIL_VARIABLES, valuesInMail, type IncomingMail, type MailMoment } from './mail.js';
export { answersFrom, type ValueSource, type Wanted } from './values.js';

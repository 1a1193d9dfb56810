/** Derives a template from past mails. */
export * from './derive.js';
export { frameLines, ownWords, pastMailOf, type FramePart, type PastMail, type PastWords } from './mail.js';
export { samplesOf, type SampleTable } from './samples.js';
export type { DerivedMail, Difference } from './score.js';
export { RETYPED, type Settlement } from './settle.js';

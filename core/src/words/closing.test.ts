/** How letters begin and end, in several languages, and what only looks so. */
import { describe, expect, it } from 'vitest';
import { bodyOf } from '../template/document.js';
import { documentOf } from '../testing/build.js';
import { findSignOff, isClosing, isGreeting } from './closing.js';
import { countAtEnd, lastOf, withoutAtEnd } from './ends.js';
import { bodyText } from './lines.js';

describe('a line that signs off', () => {
  it.each([
    ...[
      'Kind regards,',
      'With best wishes',
      'Warmest regards –',
      'Regards',
      'Many thanks',
      'Yours sincerely,',
      'Yours',
    ],
    ...[
      'Cheers!',
      'All the best',
      'Le meas,',
      'Mit freundlichen Grüßen',
      'Liebe Grüße',
      'Herzliche Grüsse',
      'Freundlicher Gruss',
      'Viele Grüße',
      'Gruß',
      'Cordialement,',
      'Saludos',
    ],
    ...['Meilleures salutations', 'Distinti saluti', 'Met vriendelijke groet', 'Best wishes from all of us'],
  ])('%j', (line) => expect(isClosing(line)).toBe(true));
  it.each([
    ...['Kind regards to your mother, who wrote to us.', 'Yours is the green umbrella', 'Thanks for the letter of May'],
    ...['The best wishes come late', 'Grüße aus dem Garten sind unterwegs', '', 'Regarding your visit'],
  ])('not %j', (line) => expect(isClosing(line)).toBe(false));
});

describe('a line that greets', () => {
  it.each([
    ...['Dear Ann,', 'Hello', 'Good morning Mr Lee:', 'Liebe Anna,', 'Sehr geehrte Damen und Herren,', 'Bonjour Zoé,'],
    ...['Estimada Ana:', 'Gentile Anna,', 'Beste Anneke,', 'A chara,', 'Chère Zoé,'],
  ])('%j', (line) => expect(isGreeting(line)).toBe(true));
  it.each([
    ...['Hide and seek', 'Caroline came', 'Dear me. What a day', `Dear ${'x'.repeat(90)}`, 'The dear geese', ''],
  ])('not %j', (line) => expect(isGreeting(line)).toBe(false));
});

describe('a signature that was written by hand', () => {
  const found = (body: string) => findSignOff(bodyOf(documentOf({ body })));
  it.each([
    ['Dear Ann,\n\nCome soon.\n\nKind regards,\\\nBo Lee\\\nVisits', { block: 2, line: 0 }],
    ['Dear Ann,\n\nCome soon.\n\nKind regards\n\nBo Lee\n\nVisits', { block: 2, line: 0 }],
    ['Come soon.\\\nYours\\\nBo', { block: 0, line: 1 }],
    ['Come soon.\n\nKind regards', undefined],
    ['Come soon.', undefined],
    [`Kind regards\n\n${Array.from({ length: 12 }, (_, at) => `Paragraph ${at}`).join('\n\n')}`, undefined],
  ])('in %j begins at %j', (body, expected) => expect(found(body)).toEqual(expected));
});

describe('the ends of texts', () => {
  it.each([
    ['geese!!', '!', 2],
    ['geese', '!', 0],
    ['!!!', '!', 3],
    ['', '!', 0],
    ['a. ,', ' ,.', 3],
  ])('of %j, of %j, has %d', (text, characters, count) => {
    expect(countAtEnd(text, characters)).toBe(count);
    expect(withoutAtEnd(text, characters)).toBe(text.slice(0, text.length - count));
  });
  it('are counted from a place, and cut from behind', () => {
    expect(countAtEnd('aa!!bb', '!', 4)).toBe(2);
    expect([lastOf('geese', 2), lastOf('geese', 9)]).toEqual(['se', 'geese']);
  });
  it('of a long text are found at once', () => {
    const started = performance.now();
    for (let round = 0; round < 200; round += 1) withoutAtEnd(`${' '.repeat(100_000)}x`, ' ');
    expect(performance.now() - started).toBeLessThan(5000);
  });
});

describe('the lines of a block', () => {
  it('end at breaks, placeholders stand by their names, and lists give each of their lines', () => {
    const blocks = bodyOf(
      documentOf({ body: 'Dear {{x}},\\\ncome **soon**\n\n- one\n- two\n  three', variables: 'x: { type: text }' }),
    );
    expect(blocks.map(bodyText)).toEqual([
      ['Dear [x],', 'come soon'],
      ['one', 'two three'],
    ]);
  });
});

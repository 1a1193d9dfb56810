/** Versions in other languages: what is the same, what has changed, what is carried over. */
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readText, writeText } from '../formats/markdown/index.js';
import { readInline, Reading } from '../formats/markdown/index.js';
import { normalise } from '../template/normalise.js';
import type { Inline, TextDocument } from '../template/document.js';
import { documents } from '../testing/arbitrary.js';
import { agreedBy, besideOriginal, carryOver, languageLines, newVersion, withLine, writtenLine } from './index.js';
import type { Agreed, LanguageRow } from './index.js';
import { localeAsked, saysLanguage } from './recipient.js';

const ENGLISH = `---
vocabula: 1
kind: message
title: Group visit confirmed
subject: "Your visit on {{visit_date}}"
variables:
  visit_date: { type: date, label: Day of the visit, required: true }
  guests: { type: number, label: Guests, plural: { one: guest, other: guests } }
  gate:
    type: choice
    label: Gate
    options:
      north: { label: North gate, wording: the **north** gate }
      river: { label: River gate, wording: the gate by the river }
  guide: { type: yes-no, label: With a guide }
---
Dear {{recipient.first_name}},

We look forward to seeing you on {{visit_date}}, with {{guests.counted}}. Please come to {{gate}}.

{{#guide}}
Your guide meets you there.

- Bring **stout shoes**.
- Bring water.
{{/guide}}

{{> opening-hours}}

With good wishes
`;
const read = (source: string): TextDocument => normalise(readText(source).document);
const original = read(ENGLISH);
const inline = (source: string): Inline[] => readInline(source, new Reading(new Set()));
const GERMAN: Readonly<Record<string, string>> = {
  'Group visit confirmed': 'Gruppenbesuch bestätigt',
  'Your visit on {{visit_date}}': 'Ihr Besuch am {{visit_date}}',
  'Dear {{recipient.first_name}},': 'Guten Tag {{recipient.first_name}},',
  'We look forward to seeing you on {{visit_date}}, with {{guests.counted}}. Please come to {{gate}}.':
    'Wir freuen uns auf Ihren Besuch am {{visit_date}} mit {{guests.counted}}. Bitte kommen Sie zum {{gate}}.',
  'Your guide meets you there.': 'Ihre Führung beginnt dort.',
  'Bring **stout shoes**.': 'Tragen Sie **feste Schuhe**.',
  'Bring water.': 'Nehmen Sie Wasser mit.',
  'With good wishes': 'Mit freundlichen Grüßen',
  'the **north** gate': '**Nordtor**',
  'the gate by the river': 'Tor am Fluss',
};
/** The version with every line that has a translation here in German. */
function translated(version: TextDocument): TextDocument {
  return languageLines(version).reduce((text, line) => {
    const words = GERMAN[writtenLine(line)];
    return words === undefined ? text : withLine(text, line.place, inline(words));
  }, version);
}
const about = { of: 'group-visit-confirmed', locale: 'de-DE', title: 'Gruppenbesuch bestätigt' };
const german = translated(newVersion(original, about));
const agreed: readonly Agreed[] = agreedBy(besideOriginal(original, german).rows);
const stateOf = (rows: readonly LanguageRow[], words: string): LanguageRow | undefined =>
  rows.find(({ original: line, version }) => [line, version].some((each) => each && writtenLine(each).includes(words)));
const changed = (from: string, to: string): TextDocument => read(ENGLISH.replace(from, to));

describe('a new version', () => {
  it('has the structure of the original, with its words left to be translated', () => {
    const version = newVersion(original, about);
    expect(version.attrs.front).toMatchObject({ locale: 'de-DE', translation_of: 'group-visit-confirmed' });
    const { rows, findings } = besideOriginal(original, version);
    expect(findings).toEqual([]);
    expect(
      rows.filter(({ state }) => state !== 'open' && state !== 'nothing').map(({ version: line }) => line?.what),
    ).toEqual(['title']);
    expect(rows.filter(({ state }) => state === 'open').length).toBeGreaterThan(10);
  });
  it('takes blocks in its own language, and the plural forms of that language', () => {
    const polish = newVersion(
      original,
      { ...about, locale: 'pl-PL' },
      {
        versionOf: (name) => (name === 'opening-hours' ? 'godziny' : undefined),
      },
    );
    expect(writeText(polish)).toContain('{{> godziny}}');
    const guests = polish.attrs.variables.find(({ key }) => key === 'guests');
    expect(Object.keys(guests?.plural ?? {}).toSorted()).toEqual(['few', 'many', 'one', 'other']);
  });
  it('of any text agrees with it, and carrying over again changes nothing', () => {
    fc.assert(
      fc.property(documents, (document) => {
        const version = newVersion(document, { of: 'it', locale: document.attrs.front.locale ?? 'en-GB', title: 'T' });
        expect(besideOriginal(document, version).findings).toEqual([]);
        expect(carryOver(document, version)).toEqual(version);
      }),
      { numRuns: 40 },
    );
  });
  it('has every line where it was, and only that line changes with it', () => {
    fc.assert(
      fc.property(documents, fc.nat(), (document, nth) => {
        const lines = languageLines(document);
        for (const { place, content } of lines) expect(withLine(document, place, content)).toEqual(document);
        const line = lines[nth % lines.length];
        // With an image goes its alternative text, which is a line as well.
        if (!line || line.content.some(({ type }) => type === 'image')) return;
        const next = languageLines(withLine(document, line.place, [{ type: 'text', text: 'Other' }]));
        expect(next.length).toBe(lines.length);
        next.forEach((each, index) => {
          // A line with an image is written with its alternative text.
          if (each.content.some(({ type }) => type === 'image')) return;
          const same = JSON.stringify(each.place) === JSON.stringify(line.place);
          expect(writtenLine(each)).toBe(same ? 'Other' : writtenLine(lines[index] ?? each));
        });
      }),
      { numRuns: 40 },
    );
  });
});

describe('beside the original', () => {
  it('every line that was compared is done', () => {
    const { rows, findings } = besideOriginal(original, german, agreed);
    expect(findings).toEqual([]);
    expect(rows.filter(({ state }) => state !== 'done' && state !== 'nothing')).toEqual([]);
  });
  it('a version that nobody compared is unsure where it has words of its own, and open elsewhere', () => {
    const { rows } = besideOriginal(original, german);
    expect(stateOf(rows, 'Ihre Führung')?.state).toBe('unsure');
    expect(stateOf(rows, 'Day of the visit')?.state).toBe('open');
  });
  it('a line that changed in the original since is marked, with what it said', () => {
    const next = changed('Your guide meets you there.', 'Your guide meets you at the desk.');
    const { rows } = besideOriginal(next, german, agreed);
    expect(stateOf(rows, 'at the desk')).toMatchObject({ state: 'changed', was: 'Your guide meets you there.' });
    expect(rows.filter(({ state }) => state === 'changed').length).toBe(1);
    // Put into other words and compared again, it is done.
    const row = stateOf(rows, 'at the desk');
    const mended = withLine(
      german,
      row?.version?.place ?? { in: 'title' },
      inline('Ihre Führung beginnt am Schalter.'),
    );
    const again = [
      ...agreed,
      { original: 'Your guide meets you at the desk.', version: 'Ihre Führung beginnt am Schalter.' },
    ];
    expect(stateOf(besideOriginal(next, mended, again).rows, 'at the desk')?.state).toBe('done');
    // Reworded later, it goes with what the original says all the same.
    const later = withLine(mended, row?.version?.place ?? { in: 'title' }, inline('Die Führung beginnt am Schalter.'));
    expect(stateOf(besideOriginal(next, later, again).rows, 'at the desk')?.state).toBe('done');
  });
  it('finds its lines where one of either is left out, by what stands in them', () => {
    const without = read(writeText(german).replace(/\n- Nehmen Sie Wasser mit\.\n/, '\n'));
    const { rows } = besideOriginal(original, without);
    expect(stateOf(rows, 'Bring water')?.state).toBe('missing');
    expect(
      stateOf(rows, 'stout shoes')?.version && writtenLine(stateOf(rows, 'stout shoes')?.version as never),
    ).toContain('feste Schuhe');
    const less = changed('Dear {{recipient.first_name}},\n\n', '');
    expect(stateOf(besideOriginal(less, german).rows, 'Guten Tag')?.state).toBe('own');
    expect(stateOf(besideOriginal(less, german).rows, 'We look forward')?.version).toBeDefined();
  });
  it('says where placeholders, passages, variables and options do not agree', () => {
    const source = writeText(german)
      .replace('am {{visit_date}} mit', 'mit')
      .replace('required: true', 'required: false')
      .replace(/\n {6}river: .*\n/, '\n')
      .replace('{{> opening-hours}}\n\n', '')
      .replaceAll('{{#guide}}', '{{^guide}}');
    const codes = besideOriginal(original, read(source), agreed).findings.map((each) =>
      each.code === 'other-language' ? each.why : '',
    );
    expect(codes.toSorted()).toEqual(
      ['no-option', 'no-passage', 'no-passage', 'no-tag', 'other-attribute', 'own-passage'].toSorted(),
    );
  });
});

describe('carrying over', () => {
  const next = read(
    ENGLISH.replace('- Bring water.\n', '')
      .replace('With good wishes', '{{#quiet}}\nPlease walk quietly.\n{{/quiet}}\n\nWith good wishes')
      .replace('  guide: {', '  quiet: { type: yes-no, label: Nesting time }\n  guide: {')
      .replace('Bring **stout shoes**.', 'Bring **stout boots**.'),
  );
  it('brings new passages and variables, takes out what is gone, and keeps every word of the version', () => {
    const carried = carryOver(next, german, { agreed });
    const written = writeText(carried);
    expect(written).toContain('{{#quiet}}\nPlease walk quietly.\n{{/quiet}}');
    expect(written).not.toContain('Wasser');
    expect(written).toContain('Tragen Sie **feste Schuhe**.');
    expect(written).toContain('Guten Tag {{recipient.first_name}},');
    expect(written).toContain('Gruppenbesuch bestätigt');
    const { rows, findings } = besideOriginal(next, carried, agreed);
    expect(findings).toEqual([]);
    expect(stateOf(rows, 'walk quietly')?.state).toBe('open');
    expect(stateOf(rows, 'stout boots')).toMatchObject({ state: 'changed', was: 'Bring **stout shoes**.' });
  });
  it('keeps a block that was chosen for the language, and the dates that were written for it', () => {
    const own = read(
      writeText(german)
        .replace('{{> opening-hours}}', '{{> zeiten}}')
        .replace('locale: de-DE', 'locale: de-DE\nreview_by: 2027-05-01'),
    );
    const carried = carryOver(next, own, { agreed });
    expect(writeText(carried)).toContain('{{> zeiten}}');
    expect(carried.attrs.front.review_by).toBe('2027-05-01');
    const known = carryOver(next, own, {
      agreed,
      versionOf: (name) => (name === 'opening-hours' ? 'oeffnung' : undefined),
    });
    expect(writeText(known)).toContain('{{> oeffnung}}');
  });
  it('keeps what only the version says, unless it once came from the original', () => {
    const more = read(writeText(german).replace('Mit freundlichen', 'Hunde bleiben draußen.\n\nMit freundlichen'));
    expect(writeText(carryOver(next, more, { agreed }))).toContain('Hunde bleiben draußen.');
  });
  it('takes a line that was moved or comes again as it was put into the language before', () => {
    const twice = read(ENGLISH.replace('{{> opening-hours}}', '{{> opening-hours}}\n\nYour guide meets you there.'));
    expect(writeText(carryOver(twice, german, { agreed })).match(/Ihre Führung beginnt dort\./g)).toHaveLength(2);
  });
});

describe('the language of a recipient', () => {
  const locales = ['en-GB', 'de-DE', 'ga-IE'];
  it.each([
    [{ language: 'de' }, 'de-DE'],
    [{ language: 'de-AT' }, 'de-DE'],
    [{ locale: 'ga_IE' }, 'ga-IE'],
    [{ language: 'German' }, 'de-DE'],
    [{ sprache: 'Deutsch' }, 'de-DE'],
    [{ preferred_language: 'Gaeilge' }, 'ga-IE'],
    [{ langue: 'irlandais' }, 'ga-IE'],
    [{ language: 'Klingon' }, undefined],
    [{ language: '' }, undefined],
    [{ town: 'de' }, undefined],
  ])('%j asks for %s', (fields, locale) => expect(localeAsked(fields as never, locales)).toBe(locale));
  it('of two that would do is the first', () => {
    expect(localeAsked({ language: 'English' }, ['en-IE', 'en-GB'])).toBe('en-IE');
    expect(localeAsked({ language: 'en-GB' }, ['en-IE', 'en-GB'])).toBe('en-GB');
  });
  it('is said by a field that has something in it', () => {
    expect(
      [{ language: 'de' }, { language: ' ' }, { town: 'Bonn' }].map((each) => saysLanguage(each as never)),
    ).toEqual([true, false, false]);
  });
});

describe('a series in another language', () => {
  const series = (steps: string, more = ''): TextDocument =>
    read(`---\nvocabula: 1\nkind: series\ntitle: A visit\n${more}steps:\n${steps}---\n`);
  const texts = (of: TextDocument) => of.attrs.steps?.map(({ text }) => text);
  const versionOf = (name: string): string | undefined => ({ confirmed: 'bestaetigt', thanks: 'danke' })[name];

  it('goes through the versions of its templates, and keeps one that was chosen by hand', () => {
    const original = series('  - { text: confirmed }\n  - { text: thanks, wait: 3 days }\n');
    const made = newVersion(original, { of: 'a-visit', locale: 'de-DE', title: 'Ein Besuch' }, { versionOf });
    expect(texts(made)).toEqual(['bestaetigt', 'danke']);
    const steps = made.attrs.steps?.map((step, at) => (at === 1 ? { ...step, text: 'danke-kurz' } : step)) ?? [];
    const own = { ...made, attrs: { ...made.attrs, steps } };
    const later = series('  - { text: confirmed }\n  - { text: thanks, wait: 5 days }\n  - { text: review }\n');
    const carried = carryOver(later, own, { versionOf });
    expect(texts(carried)).toEqual(['bestaetigt', 'danke-kurz', 'review']);
    expect(carried.attrs.steps?.[1]?.days).toBe(5);
    expect(texts(carryOver(later, carried, { versionOf }))).toEqual(texts(carried));
  });
});

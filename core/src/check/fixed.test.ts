import { describe, expect, it } from 'vitest';
import { compile } from '../compile/compile.js';
import { PLAIN_HOUSE } from '../house/house.js';
import { documentOf, type Source } from '../testing/build.js';
import { checkProgram } from './index.js';

const TODAY = '2026-11-24';
const house = {
  ...PLAIN_HOUSE,
  style: {
    ...PLAIN_HOUSE.style,
    colours: {
      ...PLAIN_HOUSE.style.colours,
      mist: { light: '#B9C4C0', dark: '#5C6660' },
      vivid: { light: '#0000FF', dark: '#9DB8E0' },
    },
  },
};
const people = [
  { first_name: 'Rose', last_name: 'Young', email: 'guest01@quillmere.example', organisation: 'Quillmere School' },
];
function codes(given: Source | string): string[] {
  const text = typeof given === 'string' ? { body: given } : given;
  const document = documentOf({ front: 'kind: message\nsubject: S\nlocale: en-IE', ...text });
  const program = compile({ name: 'main', document }, { library: { get: () => undefined }, house, today: TODAY });
  return checkProgram({ name: 'main', document }, program, people).map(({ code }) => code);
}
const front = (lines: string): string => `kind: message\nlocale: en-IE\n${lines}`;
const VARIABLES = 'late: { type: yes-no }\nname: { type: text }';

describe('the checks of what is written', () => {
  it.each<[code: string, fault: Source | string, nearMiss: Source | string]>([
    ['past-date', 'Come on 11 May 2026.', 'We have been open since 11 May 2026.'],
    ['past-date', 'Offer ends May 3, 2026.', 'Thank you for your letter of May 3, 2026.'],
    ['fixed-date', 'Come on 11 May 2027.', 'Come in May, or at 11.'],
    ['stray-value', 'Dear Quillmere School, hello', 'Dear Quillmere Schools, hello'],
    ['stray-value', 'Write to guest01@quillmere.example please', 'Write to guest02@quillmere.example please'],
    ['stray-value', 'As Ms Young said', 'Bring your young ones; roses and Rose Cottage are open'],
    ['vague-link', '[Click here](https://x.example) for the map', '[Here is the map of the garden](https://x.example)'],
    ['vague-link', '[more…](https://x.example)', '[More about the geese](https://x.example)'],
    ['bare-link', 'See https://garden.example/map for more', 'See `https://garden.example/map` and a.b for more'],
    ['heading-skipped', '# One\n\ntext\n\n### Three', '# One\n\n## Two\n\n### Three\n\n# Four'],
    [
      'table-without-header',
      '|  |  |  |\n|---|---|---|\n| a | b | c |\n| d | e | f |\n| g | h | i |',
      '| A | B | C |\n|---|---|---|\n| a | b | c |\n| d | e | f |',
    ],
    [
      'table-without-header',
      '|  |  |  |\n|---|---|---|\n| a | b | c |\n| d | e | f |\n| g | h | i |',
      '|  |  |\n|---|---|\n| When | noon |\n| Where | gate |\n| Who | Ann |',
    ],
    [
      'title-as-subject',
      { body: 'x', front: front('subject: "t"') },
      { body: 'x', front: front('subject: "About T"') },
    ],
    ['mixed-greeting', 'Dear Ann,\n\ntext\n\nHello Bob,\n\ntext', 'Dear Ann,\n\ntext\n\n> Hello Bob,'],
    [
      'mixed-greeting',
      { body: 'Dear Ann,\n\n{{#late}}\nHello again,\n{{/late}}\n\nx', variables: VARIABLES },
      { body: '{{#late}}\nDear Ann,\n{{/late}}\n\n{{^late}}\nHello,\n{{/late}}\n\nx', variables: VARIABLES },
    ],
    ['mixed-greeting', 'Dear Sir or Madam,\n\nx\n\nYours sincerely,', 'Dear Ann,\n\nx\n\nYours sincerely,'],
    ['mixed-greeting', 'Dear Ann,\n\nx\n\nYours faithfully,', 'Dear Sir,\n\nx\n\nYours faithfully,'],
    ['a-or-an', 'This is a apple.', 'This is a user, a European, a one-off, a UK visa, a unit.'],
    ['a-or-an', 'Wait an day.', 'Wait an hour for an honest answer, an 8-day ticket, an MP, an 11th place.'],
    ['a-or-an', 'A orchid', 'Plan A or plan B; vitamin A is good; an unnamed, uninvited guest'],
    ['unbalanced-punctuation', 'Bring rugs (and tea.', 'a) Bring rugs (and tea). 1) Smile :) and “rest”.'],
    ['unbalanced-punctuation', 'Bring rugs and tea).', 'Don’t: it’s the geese’ (all of them).'],
    ['lost-look', '<span data-colour="vivid">bright words</span>', '<span data-colour="moss">green words</span>'],
    [
      'lost-look',
      '| Arrangement | Responsible | Telephone | Confirmation |\n|---|---|---|---|\n| a | b | +353209100123 | d |',
      '| Bed | What grows there, and how to look after it |\n|---|---|\n| 1 | Ferns |',
    ],
    [
      'lost-look',
      '![Open all summer: gates at nine, last entry at six, geese at noon](assets/poster.png)',
      '![Map of the garden](assets/map.png)',
    ],
    ['low-contrast', '<span data-colour="mist">pale words</span>', '<span data-colour="moss">green words</span>'],
    [
      'low-contrast',
      '<div data-panel="mist">\n\n<span data-colour="mist">pale</span>\n\n</div>',
      '<div data-panel="mist">\n\nplain\n\n</div>',
    ],
  ])('%s: %j, and not %j', (code, fault, nearMiss) => {
    expect(codes(fault)).toContain(code);
    expect(codes(nearMiss)).not.toContain(code);
  });

  it('keeps quiet about languages it does not know', () => {
    const finnish = 'kind: message\nsubject: S\nlocale: fi-FI';
    expect(codes({ body: 'a apple, [here](https://x.example), 11 May 2026', front: finnish })).toEqual([]);
  });
});

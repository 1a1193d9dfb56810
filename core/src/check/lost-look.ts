/** What an author chose and some families of mail programs lose: wide tables, colours that turn badly, words in images. */
import { advice, type Finding } from '../findings/finding.js';
import type { HouseStyle } from '../house/house.js';
import { FAMILIES } from '../render/arrives/families.js';
import { leastWidth, ROOM } from '../render/arrives/room.js';
import { plainWords, type Inline, type Node, type TextDocument } from '../template/document.js';
import { childrenOf, visit } from '../template/walk.js';
import { ENOUGH_CONTRAST } from '../house/colour.js';
import type { Check } from './check.js';
import { colouredWords, contrastInWords, contrasts } from './coloured.js';

/** An alternative text of so many words says that the image carries words itself. */
const WORDY = 8;
/** Room at both sides of a cell's words, in pixels. */
const SIDES = 16;
/** In how many of the families something is lost. */
const share = (number: number): string => `in ${number} of ${FAMILIES.length} ways in which messages arrive`;

/** Finds looks that many mail programs would drop: colours turned in the dark, tables too wide. */
export const lostLook: Check = {
  run: ({ document, program: { house } }) => [
    ...turnedBadly(document, house.style),
    ...tooWide(document, house.style),
    ...wordyImages(document),
  ],
};

/** Colours that cannot be read any more where a program turns light messages dark by itself. */
function turnedBadly(document: TextDocument, style: HouseStyle): Finding[] {
  return colouredWords(document, style).flatMap(({ words, path, colour, ground }) => {
    const named = style.colours[colour];
    const under = ground === undefined ? undefined : style.colours[ground];
    if (!named) return [];
    const { turned: least } = contrasts(named, under);
    if (least >= ENOUGH_CONTRAST) return [];
    // Another colour of the house that holds everywhere, if there is one.
    const better = Object.entries(style.colours).find(([, each]) =>
      Object.values(contrasts(each, under)).every((value) => value >= ENOUGH_CONTRAST),
    )?.[0];
    return advice(
      {
        code: 'lost-look',
        why: 'dark-colours',
        text: words,
        colour,
        ground,
        contrast: contrastInWords(least),
        enough: ENOUGH_CONTRAST,
        share: share(1),
      },
      { path },
      'warning',
      better === undefined
        ? undefined
        : { how: 'recolour', mark: 'colour', name: better, path, label: `Use ${better}` },
    );
  });
}

/** Tables that are wider than a small screen even where every line breaks at every space. */
function tooWide(document: TextDocument, { size }: HouseStyle): Finding[] {
  const findings: Finding[] = [];
  visit(document, (node, path) => {
    if (node.type !== 'table') return;
    const widths: number[] = [];
    rowsIn(node).forEach((row) =>
      childrenOf(row).forEach((cell, at) => {
        const words = plainWords(childrenOf(cell).flatMap((each) => childrenOf(each)) as Inline[]);
        widths[at] = Math.max(widths[at] ?? 0, leastWidth(words, size) + SIDES);
      }),
    );
    const least = Math.round(widths.reduce((sum, each) => sum + each, 0));
    if (least > ROOM)
      findings.push(
        advice({ code: 'lost-look', why: 'wide-table', width: least, room: ROOM, share: share(1) }, { path }, 'note'),
      );
  });
  return findings;
}

/** The rows of a table, those of repeated parts as well. */
const rowsIn = (node: Node): readonly Node[] =>
  childrenOf(node).flatMap((child) => (child.type === 'tableRow' ? [child] : rowsIn(child)));

function wordyImages(document: TextDocument): Finding[] {
  const findings: Finding[] = [];
  visit(document, (node, path) => {
    if (node.type !== 'image') return;
    const words = plainWords(node.attrs.alt).trim();
    if (words.split(/\s+/).length >= WORDY)
      findings.push(
        advice({ code: 'lost-look', why: 'words-in-image', alt: words, share: share(3) }, { path }, 'note'),
      );
  });
  return findings;
}

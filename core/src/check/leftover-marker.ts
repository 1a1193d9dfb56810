import { advice } from '../findings/finding.js';
import { placeIn, type Check } from './check.js';
import { findMarkers } from './markers.js';

const UNFINISHED = /(?<![\p{L}\p{N}])(?:TBC|TBD|TBA|TODO|FIXME|XXX+|lorem ipsum)(?![\p{L}\p{N}])/giu;

/** Markers nobody has turned into a variable, and words that say that something is not finished. */
export const leftoverMarker: Check = {
  run: ({ lines }) =>
    lines.flatMap((line) => [
      ...findMarkers(line.text).map((marker) =>
        advice(
          { code: 'leftover-marker', why: 'marker', text: line.text.slice(marker.start, marker.end) },
          placeIn(line, marker.start, marker.end - marker.start),
        ),
      ),
      ...[...line.text.matchAll(UNFINISHED)].map((match) =>
        advice(
          { code: 'leftover-marker', why: 'unfinished', text: match[0] },
          placeIn(line, match.index, match[0].length),
        ),
      ),
    ]),
};

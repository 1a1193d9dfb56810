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
          'leftover-marker',
          `“${line.text.slice(marker.start, marker.end)}” looks like a marker that was to be replaced.`,
          placeIn(line, marker.start, marker.end - marker.start),
        ),
      ),
      ...[...line.text.matchAll(UNFINISHED)].map((match) =>
        advice(
          'leftover-marker',
          `“${match[0]}” says that something is not finished.`,
          placeIn(line, match.index, match[0].length),
        ),
      ),
    ]),
};

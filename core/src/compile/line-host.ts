import type { Finding } from '../findings/finding.js';
import type { House } from '../house/house.js';
import type { Binder } from './bind.js';
import type { Leaf, MarkPiece, Origin, Test } from './program.js';
import type { Site } from './site.js';

/** What lines need of the body that they stand in. */
export interface LineHost {
  readonly binder: Binder;
  readonly house: House;
  readonly findings: Finding[];
  /** Classes of the named colours that are used; lines add theirs. */
  readonly colours: Set<string>;
  /** The leaves of a block that stands in a line. */
  splice(
    name: string,
    path: readonly number[],
    site: Site,
    base: { readonly tests: readonly Test[]; readonly marks: readonly MarkPiece[]; readonly origin: Origin },
  ): Leaf[];
}

/** The services some of whose methods take long for large inputs: those are called in a worker thread. */
import type { AlikeService } from '../catalogue/alike.js';
import type { CatalogueService } from '../catalogue/service.js';
import type { FileService } from '../exchange/files.js';
import type { ImpactService } from '../versions/impact.js';
import type { InsightService } from '../insight/service.js';
import type { LetterService } from '../mailroom/service.js';
import type { LibraryService } from '../exchange/library.js';
import type { MailingService } from '../mailings/service.js';
import type { RecipientService } from '../recipients/service.js';
import type { StandingService } from '../standing-replies/service.js';
import type { TableService } from '../samples/service.js';
import type { VersionService } from '../versions/service.js';

export interface HeavyServices {
  readonly alike: AlikeService;
  readonly catalogue: CatalogueService;
  readonly files: FileService;
  readonly impact: ImpactService;
  readonly insight: InsightService;
  readonly letters: LetterService;
  readonly library: LibraryService;
  readonly mailings: MailingService;
  readonly recipients: RecipientService;
  readonly standing: StandingService;
  readonly tables: TableService;
  readonly versions: VersionService;
}

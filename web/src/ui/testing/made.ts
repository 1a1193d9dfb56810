/** Made-up things of the server for tests of pages. */
import type { Folder, LedgerRow, TextSummary } from '@vocabula/contract';
import { LEDGER_WEEKS } from '@vocabula/contract/constants';

export const FOLDER: Folder = { id: 'f1', title: 'Visits', own: false, right: 'manage', secondPerson: false };

/** A template in the folder Visits, published as version 1. */
export const summary = (name: string, title: string, more: Partial<TextSummary> = {}): TextSummary => ({
  ...{ name, title, kind: 'message', subject: `About ${title}`, revision: 1, updatedAt: '2026-11-20T09:00:00.000Z' },
  ...{ used: 0, binned: false, folder: 'f1', position: 0, tags: [], state: 'published', version: 1 },
  ...{ offered: true, mayWrite: true },
  ...more,
});

const NONE = { successes: 0, trials: 0 };
/** A row of the ledger: no messages. */
export const ledgerRow = (name: string, title: string, more: Partial<LedgerRow> = {}): LedgerRow => ({
  ...{ name, title, folder: 'f1', uses: 0, people: 0, workedOf: 0, weeks: Array<number>(LEDGER_WEEKS).fill(0) },
  ...{ missing: NONE, reworded: NONE, opened: NONE, followed: NONE, answered: NONE, bounced: NONE },
  ...more,
});

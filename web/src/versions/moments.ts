/** The history of a text as one list: working copy, versions and checkpoints, the latest first. */
import type { Standing } from '@vocabula/contract';
import type { Moment } from './HistoryList.vue';

const REASONS: Readonly<Record<string, string>> = {
  sitting: 'before a writing session',
  work: 'while writing',
  import: 'before an import',
  conversion: 'before a conversion',
  merge: 'before a merge',
  'replace-all': 'before replacing everywhere',
  restore: 'before a restore',
};

export function momentsOf(standing: Standing): Moment[] {
  const working = {
    ...{ state: 'working', title: 'Working copy', at: '9' },
    words: standing.changed ? 'not published' : 'as published',
  };
  const versions = standing.versions.map((version) => ({
    state: `version:${version.number}`,
    title: `Version ${version.number}`,
    words: version.note,
    by: version.who,
    at: version.at,
    version,
    used: version.number === standing.published?.number,
  }));
  const checkpoints = standing.checkpoints.map((each) => ({
    state: `checkpoint:${each.id}`,
    title: 'Checkpoint',
    words: REASONS[each.reason] ?? each.reason,
    by: each.who,
    at: each.at,
  }));
  // The working copy sorts behind every date.
  return [...(standing.mayWrite ? [working] : []), ...versions, ...checkpoints].sort((a, b) => (a.at < b.at ? 1 : -1));
}

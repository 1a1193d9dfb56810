/** Attributes of the front matter that are lines. */
export type FrontField =
  'title' | 'call' | 'purpose' | 'signature' | 'locale' | 'owner' | 'review_by' | 'valid_from' | 'valid_until';

export type Tab = 'variables' | 'chosen' | 'outline' | 'findings' | 'markers' | 'find' | 'remarks';

/** What the tabs of the tray are called. */
export const TAB_LABELS: Readonly<Record<Tab, string>> = {
  variables: 'Variables',
  chosen: 'Chosen',
  outline: 'Outline',
  findings: 'Findings',
  markers: 'Markers',
  find: 'Find',
  remarks: 'Remarks',
};

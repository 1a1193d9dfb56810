/** Attributes of the front matter that are lines. */
export type FrontField =
  'title' | 'call' | 'purpose' | 'signature' | 'locale' | 'owner' | 'review_by' | 'valid_from' | 'valid_until';

export type Tab = 'Variables' | 'Chosen' | 'Outline' | 'Findings' | 'Markers' | 'Find' | 'Remarks';

import { advice, error, type Finding } from '../findings/finding.js';
import type { Check } from './check.js';

/** A review whose day has passed, and dates between which it would never be offered. */
export const reviewOverdue: Check = {
  run({ document, today }) {
    const { review_by: review, valid_from: from, valid_until: until } = document.attrs.front;
    const found: Finding[] = [];
    if (review !== undefined && today !== undefined && review < today)
      found.push(advice({ code: 'review-overdue', review }, { attribute: 'review_by' }));
    if (from !== undefined && until !== undefined && until < from)
      found.push(error({ code: 'bad-value', why: 'ends-before', from, until }, { attribute: 'valid_until' }));
    return found;
  },
};

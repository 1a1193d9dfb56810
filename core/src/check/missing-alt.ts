import { advice, type Finding } from '../findings/finding.js';
import { visit } from '../template/walk.js';
import type { Check } from './check.js';

/** An image that says nothing to those who do not see it. */
export const missingAlt: Check = {
  run({ document }) {
    const findings: Finding[] = [];
    visit(document, (node, path) => {
      if (node.type === 'image' && node.attrs.alt.length === 0)
        findings.push(advice({ code: 'missing-alt' }, { path }));
    });
    return findings;
  },
};

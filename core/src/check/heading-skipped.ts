import { advice, type Finding } from '../findings/finding.js';
import { visit } from '../template/walk.js';
import type { Check } from './check.js';

/** A heading two levels below the one before: those who go from heading to heading miss a step. */
export const headingSkipped: Check = {
  run({ document }) {
    const findings: Finding[] = [];
    let before: number | undefined;
    visit(document, (node, path) => {
      if (node.type !== 'heading') return;
      const { level } = node.attrs;
      if (before !== undefined && level > before + 1)
        findings.push(
          advice({ code: 'heading-skipped', level, before }, { path }, 'note', {
            label: `Make it heading ${before + 1}`,
            path,
            how: 'attributes',
            attrs: { ...node.attrs, level: before + 1 },
          }),
        );
      before = level;
    });
    return findings;
  },
};

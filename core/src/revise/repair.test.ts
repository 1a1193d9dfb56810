import { describe, expect, it } from 'vitest';
import { check } from '../check/index.js';
import { writeText } from '../formats/markdown/index.js';
import { PLAIN_HOUSE } from '../house/house.js';
import { normalise } from '../template/normalise.js';
import { documentOf } from '../testing/build.js';
import { repaired } from './repair.js';

const house = {
  ...PLAIN_HOUSE,
  facts: {
    fee: {
      variable: { key: 'fee', type: 'money' as const, label: 'Fee', currency: 'EUR' },
      value: '4.50',
      changes: [],
    },
  },
};

describe('a repair', () => {
  it.each([
    ['It is **a apple** here.', 'It is **an apple** here.'],
    ['We open open at ten.', 'We open at ten.'],
    ['Entry is **€4.50** each.', 'Entry is **{{house.fee}}** each.'],
    ['<span data-colour="sea">words</span>', 'words'],
    ['# One\n\n### Three', '# One\n\n## Three'],
  ])('%j becomes %j, and is found no more', (fault, mended) => {
    const document = documentOf({ body: fault, front: 'kind: message\nsubject: S\nlocale: en-IE' });
    const options = { library: { get: () => undefined }, house };
    const [finding] = check({ name: 'a', document }, options).filter(({ repair }) => repair);
    const after = finding?.repair && repaired(document, finding.repair);
    if (!after) throw new Error('no repair');
    expect(writeText(normalise(after)).split('---\n')[2]?.trim()).toBe(mended);
    expect(check({ name: 'a', document: normalise(after) }, options).map(({ code }) => code)).not.toContain(
      finding?.code,
    );
  });
  it('is not done where its place is gone', () => {
    const document = documentOf('---\nvocabula: 1\nkind: message\ntitle: T\nsubject: S\n---\nshort\n');
    const replace = { label: '', how: 'replace', offset: 40, length: 2, insert: 'x' } as const;
    expect(repaired(document, { ...replace, path: [9, 0, 0] })).toBeUndefined();
    expect(repaired(document, { ...replace, path: [9, 7, 0] })).toBeUndefined();
  });
});

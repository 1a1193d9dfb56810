import { describe, expect, it } from 'vitest';
import { writeText } from '../formats/markdown/index.js';
import { documentOf } from '../testing/build.js';
import { signOffLines, withoutSignOff } from './sign-off.js';

const body = (text: string): string =>
  writeText(withoutSignOff(documentOf({ body: text })))
    .split('---\n')[2]
    ?.trim() ?? '';

describe('a signature written by hand', () => {
  it('is found with all its lines and taken out, with what stands before it in its paragraph left', () => {
    const text = 'Dear all,\n\nsee you on Monday.\n\nKind regards,\\\nMáire Roe\\\nLarkmoor Botanic Garden';
    expect(signOffLines(documentOf({ body: text }))).toEqual(['Kind regards,', 'Máire Roe', 'Larkmoor Botanic Garden']);
    expect(body(text)).toBe('Dear all,\n\nsee you on Monday.');
    expect(body('see you\\\nYours sincerely\\\nAnn')).toBe('see you');
    expect(body('see you\n\nBest wishes\n\nAnn Lee')).toBe('see you');
  });
  it('is none where nobody signs', () => {
    const document = documentOf({ body: 'Kind regards are good.\n\nCome soon.' });
    expect([signOffLines(document), withoutSignOff(document)]).toEqual([[], document]);
  });
});

import type { Folder, TextSummary } from '@vocabula/contract';
import { describe, expect, it } from 'vitest';
import { holds, narrow } from './narrow';

const text = (given: Partial<TextSummary>): TextSummary => ({
  name: 'visit',
  kind: 'message',
  title: 'Group visit',
  subject: 'Your visit',
  call: 'visit',
  locale: 'en-IE',
  revision: 1,
  updatedAt: '2026-11-20T10:00:00Z',
  lastUsed: undefined,
  used: 0,
  binned: false,
  folder: 'visits',
  position: 0,
  tags: [],
  state: 'published',
  version: 1,
  offered: true,
  mayWrite: true,
  madeBy: 'p1',
  owner: undefined,
  reviewBy: undefined,
  validFrom: undefined,
  validUntil: undefined,
  findings: [0, 0, 0],
  replacedBy: undefined,
  ...given,
});
const folder = (id: string, title: string, parent?: string): Folder => ({
  id,
  title,
  parent,
  right: 'write',
  own: false,
  secondPerson: false,
});
const context = {
  folders: [folder('root', 'Library'), folder('visits', 'Visits', 'root'), folder('large', 'Large groups', 'visits')],
  people: new Map([['p1', 'Maeve Aldous']]),
  today: '2026-11-25',
};
const lets = (line: string, given: Partial<TextSummary>): boolean => narrow(line, context).matches(text(given));

describe('the typed line', () => {
  it.each<[string, Partial<TextSummary>, Partial<TextSummary>]>([
    ['block', { kind: 'block' }, { kind: 'message' }],
    ['templates', { kind: 'message' }, { kind: 'signature' }],
    ['in vis', { folder: 'large' }, { folder: 'root' }],
    ['by maeve', { madeBy: 'p1' }, { madeBy: 'p2' }],
    ['by petra', { owner: 'petra@larkmoor.example' }, { owner: undefined }],
    ['tagged spring', { tags: ['Spring'] }, { tags: ['springs'] }],
    ['language de', { locale: 'de-AT' }, { locale: 'en-IE' }],
    ['with errors', { findings: [1, 0, 0] }, { findings: [0, 3, 0] }],
    ['with findings', { findings: [0, 0, 1] }, { findings: [0, 0, 0] }],
    ['changed', { state: 'changed' }, { state: 'published' }],
    ['changed this week', { updatedAt: '2026-11-18T09:00:00Z' }, { updatedAt: '2026-11-17T09:00:00Z' }],
    ['used this month', { lastUsed: '2026-11-01T09:00:00Z' }, { lastUsed: undefined }],
    ['unused', { used: 0 }, { used: 2 }],
    ['overdue', { reviewBy: '2026-11-24' }, { reviewBy: '2026-11-25' }],
    ['block in vis unused', { kind: 'block', folder: 'visits' }, { kind: 'block', folder: 'visits', used: 1 }],
  ])('understands “%s”', (line, yes, no) => {
    expect([lets(line, yes), lets(line, no), narrow(line, context).words]).toEqual([true, false, '']);
  });
  it('takes everything else for words, wherever it stands', () => {
    expect(narrow('quarry block lane in nowhere', context)).toMatchObject({
      words: 'quarry lane in nowhere',
      understood: ['block'],
    });
    expect(holds(text({ title: 'Größe', tags: ['spring'] }), 'grosse spring')).toBe(true);
  });
});

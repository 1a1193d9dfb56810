import { describe, expect, it } from 'vitest';
import type { Bundle } from '../../bundle/bundle.js';
import { PLAIN_HOUSE } from '../../house/house.js';
import { documentOf } from '../../testing/build.js';
import { Impact } from './impact.js';

const DAY = { today: '2026-11-24', zone: 'UTC' };
const block = (body: string) => ({ name: 'hours', document: documentOf({ body, front: 'kind: block' }) });
const template = (front = '') => ({
  name: 'visit',
  document: documentOf({
    front: `kind: message\nsubject: Visit\n${front}`.trim(),
    variables: 'school: { type: yes-no }',
    body: 'Dear guest,\n\n{{#school}}\n{{> hours}}\n\n{{/school}}',
  }),
});
const bundle = (text: Bundle['text'], texts: Bundle['texts']): Bundle => ({ text, texts, house: PLAIN_HOUSE });
const filling = (school: boolean) => ({ recipient: {}, sender: {}, answers: { school } });

describe('the impact of a change', () => {
  it('is on the messages that show what changed, and on no others', () => {
    const impact = new Impact(
      bundle(template(), [block('Open till four.')]),
      bundle(template(), [block('Open till five.')]),
      DAY,
    );
    expect(impact.changeOf(filling(false))).toBeUndefined();
    const { before, after } = impact.changeOf(filling(true)) ?? {};
    expect([before?.text, after?.text]).toEqual([
      expect.stringContaining('till four'),
      expect.stringContaining('till five'),
    ]);
  });

  it.each([
    ['a copy to somebody else', 'cc: b@x.example'],
    ['a blind copy', 'bcc: b@x.example'],
    ['another address for answers', 'reply_to: b@x.example'],
    ['an attachment', 'attachments: [{ file: plans/map.pdf, name: Map }]'],
  ])('is also %s', (_what, front) => {
    const impact = new Impact(bundle(template(), [block('x')]), bundle(template(front), [block('x')]), DAY);
    expect(impact.changeOf(filling(false))).toBeDefined();
  });

  it('is none where nothing that is sent differs', () => {
    const impact = new Impact(bundle(template(), [block('x')]), bundle(template('tags: [autumn]'), [block('x')]), DAY);
    expect(impact.changeOf(filling(true))).toBeUndefined();
  });
});

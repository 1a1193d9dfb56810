import { writtenMailbox } from '../values/mailbox.js';
import { describe, expect, it } from 'vitest';
import { rendered } from '../testing/build.js';
import { asReply, replySubject, type Received } from './index.js';

const received: Received = {
  subject: 'AW: Re: Our visit',
  from: 'Ann Lee <ann@x.example>',
  to: ['Visits <visits@larkmoor.example>', 'Bo Li <bo@x.example>'],
  cc: ['Ann Lee <ANN@x.example>', 'Cy <cy@x.example>'],
  date: '2026-11-20T10:42:00Z',
  text: 'Hello,\n<b>may</b> we come?\n> before',
};
const options = { all: false, own: ['visits@larkmoor.example'], locale: 'en-IE', zone: 'Europe/Dublin' };
const reply = (more: Partial<typeof options> = {}, to = '') =>
  asReply(rendered({ body: 'Yes.', front: `kind: message\npurpose: reply\n${to ? `to: ${to}` : ''}` }), received, {
    ...options,
    ...more,
  });

describe('a reply', () => {
  it.each([
    ['Our visit', 'Re: Our visit'],
    ['RE: re: Our visit', 'Re: Our visit'],
    ['Re[2]: Our visit', 'Re: Our visit'],
    ['Regards', 'Re: Regards'],
    ['', 'Re:'],
  ])('keeps the subject with one Re: %s', (subject, kept) => expect(replySubject(subject)).toBe(kept));

  it('goes to the sender, or to all but oneself, everybody once', () => {
    expect([reply().to.map(writtenMailbox), reply().cc]).toEqual([['Ann Lee <ann@x.example>'], []]);
    expect(reply({ all: true }).cc.map(writtenMailbox)).toEqual(['Bo Li <bo@x.example>', 'Cy <cy@x.example>']);
    expect(reply({}, 'zed@x.example').to.map(writtenMailbox)).toEqual(['zed@x.example']);
    const desk = asReply(rendered({ body: 'x' }), { ...received, replyTo: ['desk@x.example'] }, options);
    expect(desk.to.map(writtenMailbox)).toEqual(['desk@x.example']);
  });

  it('quotes the mail below, as the words it is', () => {
    const { text, html, subject } = reply();
    expect(subject).toBe('Re: Our visit');
    expect(text).toBe(
      'Yes.\n\nOn 20 November 2026 at 10:42, Ann Lee wrote:\n\n> Hello,\n> <b>may</b> we come?\n>> before\n',
    );
    expect(html).toContain('&lt;b&gt;may&lt;/b&gt; we come?');
    expect(html.endsWith('</blockquote></body></html>')).toBe(true);
    expect(reply({ locale: 'de' }).text).toContain('schrieb Ann Lee:');
  });
});

import { expect, it } from 'vitest';
import { mailtoOf } from './mailto';

it('says everything once, and lets no value become a field', () => {
  const address = mailtoOf({
    to: ['Ann Lee <ann@x.example>', 'b+c@x.example'],
    cc: ['cy@x.example'],
    bcc: [],
    subject: 'Your visit & ours?',
    text: 'Dear Ann,\n100 % sure&bcc=eve@x.example\n',
  });
  expect(address).toBe(
    'mailto:ann@x.example,b%2Bc@x.example?cc=cy@x.example&subject=Your%20visit%20%26%20ours%3F&body=Dear%20Ann%2C%0D%0A100%20%25%20sure%26bcc%3Deve%40x.example%0D%0A',
  );
  expect(new URL(address).searchParams.get('bcc')).toBeNull();
});

/** Plain mails for the demo, as a simple mail program would have written them. */
import type { DemoMail } from './mail.js';

/** RFC 2047 for whatever is not ASCII. */
const header = (words: string): string =>
  /^[\x20-\x7e]*$/.test(words) ? words : `=?utf-8?B?${Buffer.from(words).toString('base64')}?=`;

function mailbox(words: string): string {
  const [, name = '', address = words] = /^(.*?)\s*<([^<>]+)>$/.exec(words) ?? [];
  const said = header(name.replace(/^"|"$/g, ''));
  return name === '' ? address : `${/[",;]/.test(name) && !said.startsWith('=?') ? `"${said}"` : said} <${address}>`;
}

export function fieldsOfMail(
  { id, from = '', cc, subject = '', text = '', answers, headers = {} }: DemoMail,
  to: string,
  at: Date,
): string {
  const domain = from.split('@')[1]?.replace('>', '') ?? 'mail.example';
  const lines = [
    `From: ${mailbox(from)}`,
    `To: ${mailbox(to)}`,
    ...(cc ? [`Cc: ${mailbox(cc)}`] : []),
    `Subject: ${header(subject)}`,
    `Date: ${at.toUTCString()}`,
    `Message-ID: <${id}@${domain}>`,
    ...(answers ? [`In-Reply-To: <${answers}@${domain}>`, `References: <${answers}@${domain}>`] : []),
    ...Object.entries(headers).map(([name, value]) => `${name}: ${header(value)}`),
    'MIME-Version: 1.0',
    'Content-Type: text/plain; charset=utf-8',
    'Content-Transfer-Encoding: base64',
    '',
    Buffer.from(text.replace(/\n/g, '\r\n')).toString('base64').replace(/.{76}/g, '$&\r\n'),
    '',
  ];
  return lines.join('\r\n');
}

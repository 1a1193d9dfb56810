/** Mailboxes as one file (RFC 4155): mails one after the other, each behind a line that begins with “From ”. */

const FROM = /^From [^\r\n]*$/;

/** True for a file that is a mailbox rather than one mail. */
export const isMbox = (bytes: Uint8Array): boolean =>
  new TextDecoder('latin1').decode(bytes.subarray(0, 5)) === 'From ';

/**
 * The mails of a mailbox, as they came; quoted “>From ” lines are “From ” again.
 * @param most after so many mails the rest is not read
 */
export function mailsOf(bytes: Uint8Array, most = Infinity): Uint8Array[] {
  // Latin-1 keeps every byte, whatever it means.
  const lines = Buffer.from(bytes).toString('latin1').split(/\r?\n/);
  const mails: string[][] = [];
  for (const [at, line] of lines.entries()) {
    if (FROM.test(line) && (at === 0 || lines[at - 1] === '')) {
      if (mails.length >= most) break;
      mails.push([]);
    } else mails.at(-1)?.push(/^>+From /.test(line) ? line.slice(1) : line);
  }
  return mails
    .map((mail) => {
      // Empty lines at the end belong to the file, not to the mail; one line break ends it.
      let length = mail.length;
      while (length > 0 && mail[length - 1] === '') length -= 1;
      return mail.slice(0, length).concat('').join('\r\n');
    })
    .filter((mail) => mail.trim() !== '')
    .map((mail) => Buffer.from(mail, 'latin1'));
}

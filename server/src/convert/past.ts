/** Files of sent mail, read in a worker thread. */
import { MOST_MAILS } from '@vocabula/core/derive';
import { readPastMails } from '@vocabula/mail';

/** The mails of a file: as many as a template is derived from. */
export const pastMails = ({ name, bytes }: { readonly name: string; readonly bytes: Uint8Array }) =>
  readPastMails(name, bytes, MOST_MAILS);

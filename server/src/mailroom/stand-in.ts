/** The stand-in for a mail service: takes what is sent to it on this machine, and delivers nothing. */
import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';
import type { LetterService } from './service.js';

/** The largest mail it takes, in bytes. */
const LARGEST = 30_000_000;

export interface StandIn {
  /** What `SMTP_URL` would be. */
  readonly url: string;
  close(): Promise<void>;
}

/** Listens on a free port of 127.0.0.1. */
export async function startStandIn(letters: LetterService): Promise<StandIn> {
  const server = new SMTPServer({
    authOptional: true,
    // Nothing leaves this machine, so there is nobody to prove oneself to.
    disabledCommands: ['AUTH', 'STARTTLS'],
    size: LARGEST,
    banner: 'Vocabula stand-in',
    onData(stream, session, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        if (stream.sizeExceeded) return done(new Error('This mail is too large.'));
        const { mailFrom, rcptTo } = session.envelope;
        letters
          .take(
            mailFrom ? mailFrom.address : '',
            rcptTo.map(({ address }) => address),
            Buffer.concat(chunks),
          )
          .then(() => done(), done);
      });
    },
  });
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject);
    server.listen(0, '127.0.0.1', resolve);
  });
  // A client that goes away in the middle is nobody's failure here.
  server.on('error', () => undefined);
  const { port } = server.server.address() as AddressInfo;
  return {
    url: `smtp://127.0.0.1:${port}`,
    close: () => new Promise((resolve) => server.close(() => resolve())),
  };
}

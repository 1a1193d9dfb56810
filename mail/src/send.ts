/** Gives finished mail to a mail service. */
import { createTransport } from 'nodemailer';

export interface OutgoingMail {
  /** A bare address: what the service is told, whatever the message says. */
  readonly from: string;
  readonly to: readonly string[];
  /** The message whole, as `toEml` makes it. */
  readonly eml: Uint8Array;
}

/** The service could not be reached, or did not take the mail. */
export class SendProblem extends Error {}

/**
 * Sends mail one after the other over one connection.
 * @param url `smtp://` or `smtps://`, with user and password where the service wants them
 * @throws SendProblem with words for people; what was sent before it is sent
 */
export async function sendAll(url: string, mails: readonly OutgoingMail[]): Promise<void> {
  const transport = createTransport(url, {
    pool: true,
    maxConnections: 1,
    connectionTimeout: 10_000,
    greetingTimeout: 10_000,
    socketTimeout: 30_000,
    disableFileAccess: true,
    disableUrlAccess: true,
  } as Parameters<typeof createTransport>[1]);
  try {
    for (const { from, to, eml } of mails)
      await transport.sendMail({ envelope: { from, to: [...to] }, raw: Buffer.from(eml) });
  } catch (problem) {
    throw new SendProblem(
      `The mail service did not take it: ${problem instanceof Error ? problem.message.split('\n')[0] : 'it gave no reason'}`,
    );
  } finally {
    transport.close();
  }
}

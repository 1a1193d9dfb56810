/** Gives finished mail to a mail service. */
import { createTransport, type Transporter } from 'nodemailer';

/** A mail as it is given to a mail service. */
export interface OutgoingMail {
  /** A bare address: what the service is told, whatever the message says. */
  readonly from: string;
  readonly to: readonly string[];
  /** The message whole, as `toEml` makes it. */
  readonly eml: Uint8Array;
}

/**
 * Why mail did not go.
 * - `service`: before any message was spoken of: no connection, a bad greeting, no sign-in. It concerns all mail.
 * - `sender`: the service does not take mail of this sender.
 * - `later`: this message was not taken now and may be given again.
 * - `refused`: this message never will be taken.
 * - `unknown`: the service was lost after the message and before its answer, so that it may have been taken.
 */
export type SendFailure = 'service' | 'sender' | 'later' | 'refused' | 'unknown';

/** The service could not be reached, or did not take the mail. The message is words for people. */
export class SendProblem extends Error {
  constructor(
    message: string,
    readonly kind: SendFailure = 'later',
  ) {
    super(message);
  }
}

/** How long the service may take, in milliseconds. */
const PATIENCE = { connectionTimeout: 10_000, greetingTimeout: 10_000, socketTimeout: 30_000 };
const QUIET = (): void => undefined;

/** A connection to a mail service, kept open between mails, which go one after the other. */
export class MailService {
  private readonly transport: Transporter;
  /** Whether all of the present mail was given, so that only the answer is missing. */
  private given = false;
  private turn: Promise<unknown> = Promise.resolve();

  /** @param url `smtp://` or `smtps://`, with user and password where the service wants them */
  constructor(url: string, patience: Partial<typeof PATIENCE> = {}) {
    // The transport says in its log, and nowhere else, that a message has gone over the line whole.
    const info = ({ tnx }: { tnx?: string }): void => void (this.given ||= tnx === 'message');
    // Options beside an address given as text would be those of messages, not of the connection.
    this.transport = createTransport({
      url,
      pool: true,
      maxConnections: 1,
      // A message whose connection was lost is never given again by itself: that is for whoever knows what became of it.
      maxRequeues: 0,
      ...PATIENCE,
      ...patience,
      logger: { level: QUIET, trace: QUIET, debug: QUIET, info, warn: QUIET, error: QUIET, fatal: QUIET },
      disableFileAccess: true,
      disableUrlAccess: true,
    } as Parameters<typeof createTransport>[0]);
  }

  /**
   * Resolves when the service has taken the mail, with the recipients that it did not take.
   * @throws SendProblem with words for people
   */
  send(mail: OutgoingMail): Promise<readonly string[]> {
    const sent = this.turn.then(() => this.sendNow(mail));
    this.turn = sent.catch(QUIET);
    return sent;
  }

  private async sendNow({ from, to, eml }: OutgoingMail): Promise<readonly string[]> {
    this.given = false;
    try {
      const info = (await this.transport.sendMail({
        envelope: { from, to: [...to] },
        raw: Buffer.from(eml),
      })) as { readonly rejected?: readonly unknown[] };
      return (info.rejected ?? []).map(String);
    } catch (problem) {
      throw sendProblem(problem, this.given);
    }
  }

  close(): void {
    this.transport.close();
  }
}

/** What the transport says of a failure. */
interface Failure {
  readonly code?: string;
  /** What was last said to the service: `CONN`, `EHLO`, `AUTH PLAIN`, `MAIL FROM`, `RCPT TO`, `DATA`, `API`. */
  readonly command?: string;
  readonly responseCode?: number;
  readonly message?: string;
}
/** The service is closing down, whatever was said to it (RFC 5321, 4.2.3). */
const CLOSING_DOWN = 421;

function sendProblem(problem: unknown, given: boolean): SendProblem {
  const { code, command = '', responseCode, message } = (problem ?? {}) as Failure;
  const said = message?.split('\n')[0] ?? 'it gave no reason';
  if (responseCode !== undefined && responseCode !== CLOSING_DOWN) {
    // Only what is said to a recipient or to the message itself is about the message.
    if (/^(?:RCPT|DATA)/.test(command))
      return new SendProblem(`The mail service did not take it: ${said}`, responseCode >= 500 ? 'refused' : 'later');
    return command.startsWith('MAIL')
      ? new SendProblem(`The mail service takes no mail from this sender: ${said}`, 'sender')
      : new SendProblem(`The mail service does not take mail now: ${said}`, 'service');
  }
  // The transport itself found the envelope or the message impossible; the service was not asked.
  if (command === 'API' && (code === 'EENVELOPE' || code === 'EMESSAGE'))
    return new SendProblem(`The mail service cannot take it: ${said}`, 'refused');
  return given && responseCode === undefined
    ? new SendProblem(`The mail service was lost before it said whether it took the message: ${said}`, 'unknown')
    : new SendProblem(`The mail service cannot be reached: ${said}`, 'service');
}

/**
 * Sends mail one after the other over one connection.
 * @throws SendProblem with words for people; what was sent before it is sent
 */
export async function sendAll(url: string, mails: readonly OutgoingMail[]): Promise<void> {
  const service = new MailService(url);
  try {
    for (const mail of mails) await service.send(mail);
  } finally {
    service.close();
  }
}

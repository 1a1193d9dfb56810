/** What a change does to the messages of a template: each is made before and after it (engine notes, section 9). */
import { compileBundle, type Bundle } from '../../bundle/bundle.js';
import type { Program } from '../../compile/program.js';
import { render, type Message } from '../../render/render.js';
import { sameValue } from '../../words/same.js';
import type { Filling } from '../filling.js';

/** A message as it was and as it would be. */
export interface MessageChange {
  readonly before: Message;
  readonly after: Message;
}

/** Compares the messages of two bundles: of one template, before and after a change of what it is made of. */
export class Impact {
  private readonly before: Program;
  /** The changed template, for what its samples give it. */
  readonly after: Program;

  /** @param day for which messages are made: an ISO day and a zone */
  constructor(
    before: Bundle,
    after: Bundle,
    private readonly day: { readonly today: string; readonly zone: string },
  ) {
    this.before = compileBundle(before);
    this.after = compileBundle(after);
  }

  /** Both messages of a filling; undefined where they say the same to the same people. */
  changeOf(filling: Filling): MessageChange | undefined {
    const input = { ...filling, ...this.day };
    const [before, after] = [render(this.before, input), render(this.after, input)];
    return sameValue(received(before), received(after)) ? undefined : { before, after };
  }
}

/** All of a message that somebody gets. */
const received = ({ subject, to, cc, bcc, replyTo, attachments, html, text, invitation }: Message): unknown => ({
  subject,
  to,
  cc,
  bcc,
  replyTo,
  attachments,
  html,
  text,
  invitation,
});

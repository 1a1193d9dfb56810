/** What a message is made of, and the one way in which that is compiled. */
import { compile } from '../compile/compile.js';
import type { Program } from '../compile/program.js';
import type { House } from '../house/house.js';
import type { NamedDocument, Purpose } from '../template/document.js';

/** What a message is made of: a text, what it may include, the house and a signature. */
export interface Bundle {
  /** The text that the message is of. */
  readonly text: NamedDocument;
  /** All that it may include, the signature and what that includes among them. Others may be there, and the text itself. */
  readonly texts: readonly NamedDocument[];
  readonly house: House;
  /** The name of the sender's signature, for messages that bring none of their own. */
  readonly signature?: string | undefined;
  /** The day that relative limits and written days are checked against, ISO. */
  readonly today?: string | undefined;
}

/** Compiles a bundle. Never throws for what its texts hold: everything wrong is among the program's findings. */
export function compileBundle({ text, texts, house, signature, today }: Bundle): Program {
  const byName = new Map(texts.map(({ name, document }) => [name, document]));
  return compile(text, {
    library: { get: (name) => byName.get(name) },
    house,
    senderSignature: signature,
    ...(today === undefined ? {} : { today }),
  });
}

/** The name of the signature that a sender uses for messages of a purpose; undefined where they have none for it. */
export const signatureFor = (
  purpose: Purpose | undefined,
  sender: { readonly signature?: string | undefined; readonly reply_signature?: string | undefined },
): string | undefined => (purpose === 'reply' ? sender.reply_signature : sender.signature) || undefined;

/** The work of the proof's worker: compiles when a text has changed, renders for whoever is asked for, then checks. */
import {
  checkMessage,
  checkProgram,
  compile,
  measure,
  PLAIN_HOUSE,
  render,
  type Finding,
  type House,
  type Program,
  type TextDocument,
} from '@vocabula/core';
import { fillingOfRow } from '@vocabula/core/proof';
import { lookOf } from '../../ui/look';
import type { ProofReply, ProofRequest } from './protocol';
import { currentValues } from './values';

export class Prover {
  private text: { readonly name: string; readonly document: TextDocument } | undefined;
  private library: ReadonlyMap<string, TextDocument> = new Map();
  private house: House = PLAIN_HOUSE;
  private signature: string | null = null;
  private program: Program | undefined;

  /** Takes a request, and gives the message at once; `findings` is what remains to be done. */
  prove(request: ProofRequest): { readonly reply: ProofReply; readonly findings: () => ProofReply } | undefined {
    const { id, text, library, house, signature, input } = request;
    if (text) this.text = text;
    if (library) this.library = new Map(library);
    if (house) this.house = house;
    if (signature !== undefined) this.signature = signature;
    if (text || library || house || signature !== undefined) this.program = undefined;
    const own = this.text;
    if (!own) return undefined;
    const program = (this.program ??= compile(own, {
      library: { get: (name) => this.library.get(name) },
      house: this.house,
      today: input.today,
      ...(this.signature !== null && this.library.has(this.signature) ? { senderSignature: this.signature } : {}),
    }));
    // A column of a variable's own key answers it, unless something else was answered here.
    const { answers } = fillingOfRow(program, input.recipient);
    const filled = { ...input, answers: { ...answers, ...input.answers } };
    const { html: _html, ...message } = render(program, filled, { proof: true });
    return {
      reply: {
        id,
        what: 'message',
        message: { ...message, look: lookOf(program) },
        values: [...currentValues(program, filled)],
        slots: program.slots.map(({ key, label, variable, text: from }) => ({
          key,
          label,
          type: variable.type,
          text: from,
          variable,
        })),
        texts: program.texts,
        missing: program.missing,
      },
      findings: () => ({
        id,
        what: 'findings',
        findings: foundIn(
          checkProgram(own, program, [input.recipient], input.today),
          message.findings,
          checkMessage(own, program, filled),
        ),
        measure: measure(own.document, program.locale),
      }),
    };
  }
}

/** All findings; what a check of the text says already is not said of the message again. */
function foundIn(
  ofText: readonly Finding[],
  ofMessage: readonly Finding[],
  more: readonly Finding[],
): readonly Finding[] {
  const said = new Set(ofText.map(({ code, message }) => `${code} ${message}`));
  return [...ofText, ...ofMessage.filter(({ code, message }) => !said.has(`${code} ${message}`)), ...more];
}

/** What is said between the desk and the worker that renders its proof. */
import type { Finding, House, Measure, Message, TextDocument, TypeName, Variable, Value } from '@vocabula/core';
import type { Look } from '../../ui/look';

/** Asks for a proof. What is left out is as it was before. */
export interface ProofRequest {
  readonly id: number;
  readonly text?: { readonly name: string; readonly document: TextDocument };
  /** Texts that may be included, by name. */
  readonly library?: readonly (readonly [name: string, document: TextDocument])[];
  readonly house?: House;
  /** The sender's signature; `null` for none. */
  readonly signature?: string | null;
  readonly input: {
    readonly recipient: Readonly<Record<string, string>>;
    readonly sender: Readonly<Record<string, string>>;
    readonly answers: Readonly<Record<string, unknown>>;
    readonly today: string;
    readonly zone: string;
  };
}

/** A variable of the whole message. */
export interface ProofSlot {
  readonly key: string;
  readonly label: string;
  readonly type: TypeName;
  /** The text it is declared in. */
  readonly text: string;
  readonly variable: Variable;
}

export interface ProofMessage extends Omit<Message, 'html'> {
  readonly look: Look;
}

/** What a variable or field is now. */
export interface CurrentValue {
  /** As it reads in a line. */
  readonly words: string;
  /** What conditions compare; only variables have one. */
  readonly value?: Value;
}

/** First the message; what the checks found follows, for it takes longer. */
export type ProofReply =
  | {
      readonly id: number;
      readonly what: 'message';
      readonly message: ProofMessage;
      readonly values: readonly (readonly [name: string, value: CurrentValue])[];
      readonly slots: readonly ProofSlot[];
      /** Names of all texts that the message is made of, its own first. */
      readonly texts: readonly string[];
      /** Names that are included and unknown here. */
      readonly missing: readonly string[];
    }
  | {
      readonly id: number;
      readonly what: 'findings';
      readonly findings: readonly Finding[];
      readonly measure: Measure;
    };

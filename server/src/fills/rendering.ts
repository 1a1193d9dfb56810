/** A message being filled as it reads: the same for the clipboard, a file, the mail service and one of many. */
import { senderFields, type Fill, type Profile } from '@vocabula/contract';
import { compileBundle, dayIn, render, type Message, type Program, type RenderInput } from '@vocabula/core';
import { asReply, composed } from '@vocabula/core/filling';
import { notFound } from '../http/problem.js';

/** What a message is compiled from. */
export type Compiled = Pick<Fill, 'texts' | 'house' | 'signature' | 'changes'>;
/** What of a message its compiled texts are rendered with. */
export type Answered = Pick<Fill, 'fields' | 'answers' | 'offered' | 'original' | 'all'>;

export interface Moment {
  readonly now: Date;
  /** The sender's zone. */
  readonly zone: string;
}

export function programOf({ texts, house, signature, changes }: Compiled): Program {
  const all = composed(texts, changes);
  const [own] = all;
  if (!own) throw notFound('template');
  return compileBundle({ text: own, texts: all, house, signature });
}

export const inputOf = (
  { fields, answers, offered }: Pick<Answered, 'fields' | 'answers' | 'offered'>,
  sender: Record<string, string>,
  { now, zone }: Moment,
): RenderInput => ({ recipient: fields, sender, answers, offered, today: dayIn(now, zone), zone });

/** Renders a message whole, the mail it answers below it. */
export function messageOf(
  program: Program,
  fill: Answered,
  profile: Profile,
  moment: Moment,
  unsigned = false,
): Message {
  const message = render(program, inputOf(fill, senderFields(profile), moment), { unsigned });
  return fill.original && program.purpose === 'reply'
    ? asReply(message, fill.original, {
        all: fill.all,
        own: [profile.email],
        locale: program.locale,
        zone: moment.zone,
      })
    : message;
}

/** Why a message is not ready, in words. */
export function whyNot(message: Message, program: Program): string {
  if (message.blanks.length > 0)
    return `Still blank: ${message.blanks.map((key) => program.slots.find((slot) => slot.key === key)?.label ?? key).join(', ')}.`;
  return message.findings.find((finding) => finding.level === 'error')?.message ?? 'The message is not ready.';
}

/** What a message is by the ways that it leaves: HTML for a clipboard, or a file. */
import type { Fill, HandOverWays, Way } from '@vocabula/contract';
import { forPasting, structureOnly, withoutImages, type Mailbox, type Message, type Program } from '@vocabula/core';
import { inlined, toEml, toIcs, type AssetSource } from '@vocabula/mail';
import { withAssets } from '../assets/message-assets.js';
import { RequestProblem } from '../http/problem.js';

/** A message as a file to be saved. */
export interface HandedOverFile {
  readonly name: string;
  readonly type: string;
  readonly content: Uint8Array | string;
}

/** The HTML for a clipboard, which takes no files along, with as much look as arrives. */
export function clipboardHtml(
  program: Program,
  message: Message,
  assets: AssetSource,
  { look, images }: HandOverWays,
): string {
  const whole = forPasting(program, message);
  const html = images ? inlined(whole, assets, message.width) : withoutImages(whole);
  return look === 'house' ? html : structureOnly(html);
}

/** The file of a way that has one. @throws RequestProblem 422 for a calendar of what is no invitation */
export async function fileOf(
  way: Way,
  fill: Fill,
  message: Message,
  assets: AssetSource,
  options: { readonly date: Date; readonly from?: Mailbox },
): Promise<HandedOverFile | undefined> {
  switch (way) {
    case 'draft': {
      const answers = fill.original?.messageId
        ? {
            messageId: fill.original.messageId,
            ...(fill.original.references ? { references: fill.original.references } : {}),
          }
        : undefined;
      const content = await withAssets(() =>
        toEml(message, { ...options, draft: true, assets, ...(answers ? { answers } : {}) }),
      );
      return { name: `${fill.text}.eml`, type: 'message/rfc822', content };
    }
    case 'ics':
      if (!message.invitation)
        throw new RequestProblem(
          422,
          'no-invitation',
          'This template is no invitation: it has no time to put in a calendar.',
        );
      return {
        name: `${fill.text}.ics`,
        type: 'text/calendar; charset=utf-8; method=REQUEST',
        content: toIcs(message, options),
      };
    case 'html':
      return {
        name: `${fill.text}.html`,
        type: 'text/html; charset=utf-8',
        content: inlined(message.html, assets, message.width),
      };
    case 'txt':
      return { name: `${fill.text}.txt`, type: 'text/plain; charset=utf-8', content: message.text };
    default:
      return undefined;
  }
}

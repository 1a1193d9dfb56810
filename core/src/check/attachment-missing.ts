import { advice } from '../findings/finding.js';
import { part } from '../template/document.js';
import { placeIn, type Check } from './check.js';

/** Words that promise an attachment, by language; “attached to this quay” promises none. */
const PROMISES: Readonly<Record<string, RegExp>> = {
  en: /(?<!\p{L})(?:(?:see|find|is|are|have|please find|i['’]ve|we['’]ve)\s+(?:the\s+)?(?:attached|enclosed)(?!\s+to(?!\s+(?:this|the)\s+(?:e-?mail|mail|message|letter|note)))|attached\s+(?:is|are|you|please|file|document|form|plan|map|list|pdf)|(?:the|this|in the|an)\s+attachment)(?!\p{L})/iu,
  de: /(?<!\p{L})(?:im anhang|anbei|angehängt|beigefügt|als anlage)(?!\p{L})/iu,
  fr: /(?<!\p{L})(?:ci-joint[es]?|pièces? jointes?|en annexe)(?!\p{L})/iu,
  es: /(?<!\p{L})(?:adjunt[oa]s?|archivo adjunto)(?!\p{L})/iu,
  it: /(?<!\p{L})(?:in allegato|allegat[oaie])(?!\p{L})/iu,
  nl: /(?<!\p{L})(?:bijgevoegd|in de bijlage|als bijlage)(?!\p{L})/iu,
};

/** The words promise an attachment and there is none. */
export const attachmentMissing: Check = {
  languages: Object.keys(PROMISES),
  run({ document, lines, language }) {
    if (document.attrs.front.kind !== 'message' || part(document, 'attachments').content?.length) return [];
    const promise = PROMISES[language];
    return lines.flatMap((line) => {
      const match = promise?.exec(line.text);
      return match
        ? [advice({ code: 'attachment-missing', text: match[0] }, placeIn(line, match.index, match[0].length))]
        : [];
    });
  },
};

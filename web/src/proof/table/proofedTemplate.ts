/** A compiled template with its proofing table. */
import { compileBundle, type Program } from '@vocabula/core';
import { ProofTable, type LineBook } from '@vocabula/core/proof';
import type { TemplateParts } from './protocol';

export interface ProofedTemplate {
  readonly parts: TemplateParts;
  readonly program: Program;
  readonly table: ProofTable;
}

/** Compiles a template. @param book collects the lines of its messages, so that each is kept once */
export function proofedTemplate(parts: TemplateParts, book: LineBook): ProofedTemplate {
  const { text, house, today, signature } = parts;
  const texts = parts.library.map(([name, document]) => ({ name, document }));
  const program = compileBundle({
    text,
    texts,
    house,
    today,
    // A signature that the user may not see is left out instead of reported as missing.
    signature: texts.some(({ name }) => name === signature) ? (signature ?? undefined) : undefined,
  });
  const table = new ProofTable(parts.text, program, { today: parts.today, zone: parts.zone }, book);
  return { parts, program, table };
}

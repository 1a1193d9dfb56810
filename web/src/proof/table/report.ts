/** The proof report: what an approver reads and signs. One HTML document that needs nothing else. */
import { escapeHtml } from '@vocabula/core';
import { showMoment } from '../../ui/dates/reader';
import type { FindingGroup } from './findings';
import type { PairingWords } from './protocol';

export interface ReportSheet {
  readonly label: string;
  readonly detail: string;
  readonly subject: string;
  readonly to: readonly string[];
  /** The message's own HTML. */
  readonly fragment: string;
  readonly blanks: readonly string[];
  readonly looked: { readonly who: string; readonly at: string } | undefined;
}

export interface ReportParts {
  readonly title: string;
  readonly revision: number;
  readonly set: string;
  readonly by: string;
  /** ISO moment. */
  readonly at: string;
  readonly recipients: number;
  readonly ready: number;
  readonly hard: number;
  readonly pairing: PairingWords | undefined;
  readonly pairs: number;
  readonly lookedAt: number;
  readonly findings: readonly FindingGroup[];
  readonly sheets: readonly ReportSheet[];
  readonly bodyStyle: string;
  readonly lang: string;
}

const STYLE = `
  body { font: 14px/20px 'Commissioner Variable', Arial, sans-serif; color: #20262E; background: #FFFDF8; margin: 0 auto; max-width: 820px; padding: 32px 24px; }
  h1 { font: 500 24px/32px 'Literata Variable', Georgia, serif; margin: 0; }
  h2 { font: 500 18px/24px 'Literata Variable', Georgia, serif; margin: 28px 0 8px; border-bottom: 1px solid #D9D3C7; padding-bottom: 4px; }
  .quiet { color: #5D6470; }
  table.list { border-collapse: collapse; width: 100%; }
  table.list th, table.list td { text-align: left; vertical-align: top; padding: 4px 12px 4px 0; border-bottom: 1px solid #D9D3C7; }
  article { border: 1px solid #D9D3C7; padding: 16px 24px; margin: 16px 0; break-inside: avoid; }
  article > header { border-bottom: 1px solid #D9D3C7; padding-bottom: 8px; margin-bottom: 12px; }
  .sign { display: grid; grid-template-columns: 1fr 1fr; gap: 32px; margin-top: 40px; break-inside: avoid; }
  .sign div { border-top: 1px solid #20262E; padding-top: 4px; height: 48px; }
  @media print { body { padding: 0; background: none; } }
`;

/** Writes the report. */
export function writeReport(parts: ReportParts): string {
  const { findings, pairing } = parts;
  const open = findings.filter(({ aside }) => !aside);
  const aside = findings.filter((group) => group.aside);
  const cannot = pairing?.impossible.reduce((sum, { count }) => sum + count, 0) ?? 0;
  const what = pairing?.strength === 3 ? 'triples' : 'pairs';
  const coverage = pairing
    ? `${parts.pairs} messages show ${pairing.covered} ${what} of options; ${cannot} cannot happen${pairing.notFound > 0 ? `; ${pairing.notFound} were neither found nor ruled out` : ''}. ${parts.lookedAt} of ${parts.pairs} were looked at as they are now.`
    : 'Pairings were not checked.';
  return `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${escapeHtml(`Proof report: ${parts.title}`)}</title><style>${STYLE}</style></head><body>
<h1>${escapeHtml(parts.title)}</h1>
<p class="quiet">Proof report of the working copy, revision ${parts.revision}, made by ${escapeHtml(parts.by)} on ${escapeHtml(moment(parts.at))}.</p>
<h2>What was proofed</h2>
<p>${parts.recipients} recipients of “${escapeHtml(parts.set)}”, ${parts.ready} of them ready to send; ${parts.hard} hard cases. ${escapeHtml(coverage)}</p>
${reasons(pairing)}
<h2>Findings</h2>
${open.length === 0 ? '<p>None is open.</p>' : table(['', 'What', 'Where', 'For'], open.map(findingRow))}
<h2>Set aside</h2>
${aside.length === 0 ? '<p>Nothing was set aside.</p>' : table(['What', 'Why', 'By', 'When'], aside.map(asideRow))}
<h2>Messages</h2>
${parts.sheets.length === 0 ? '<p>None was chosen.</p>' : parts.sheets.map((sheet) => sheetHtml(sheet, parts)).join('\n')}
<div class="sign"><div>Approved by</div><div>Date</div></div>
</body></html>
`;
}

const moment = (iso: string): string => showMoment(iso, 'long');

const table = (head: readonly string[], rows: readonly (readonly string[])[]): string =>
  `<table class="list"><thead><tr>${head.map((cell) => `<th>${escapeHtml(cell)}</th>`).join('')}</tr></thead><tbody>${rows
    .map((row) => `<tr>${row.map((cell) => `<td>${escapeHtml(cell)}</td>`).join('')}</tr>`)
    .join('')}</tbody></table>`;

const reasons = (pairing: PairingWords | undefined): string =>
  pairing && pairing.impossible.length > 0
    ? `<ul>${pairing.impossible.map(({ because, count }) => `<li>${count} cannot happen: ${escapeHtml(because)}</li>`).join('')}</ul>`
    : '';

function findingRow({ finding, context, always, in: within }: FindingGroup): string[] {
  const counts = [
    ...(always ? ['the template itself'] : []),
    ...(
      [
        [within.recipients.length, 'recipients'],
        [within.hard.length, 'hard cases'],
        [within.pairing.length, 'pairings'],
      ] as const
    ).flatMap(([count, words]) => (count > 0 ? [`${count} ${words}`] : [])),
  ];
  return [finding.level, finding.message, context || (finding.place.text ?? ''), counts.join(', ')];
}

const asideRow = ({ finding, aside }: FindingGroup): string[] => [
  finding.message,
  aside?.reason ?? '',
  aside?.who ?? '',
  aside ? moment(aside.at) : '',
];

function sheetHtml({ label, detail, subject, to, fragment, blanks, looked }: ReportSheet, parts: ReportParts): string {
  const seen = looked ? `Looked at by ${looked.who}, ${moment(looked.at)}` : 'Not looked at';
  return `<article><header><b>${escapeHtml(label)}</b> <span class="quiet">${escapeHtml(detail)} · ${escapeHtml(seen)}${blanks.length > 0 ? ` · blank: ${escapeHtml(blanks.join(', '))}` : ''}</span><br>To: ${escapeHtml(to.join(', ') || '—')}<br>Subject: <b>${escapeHtml(subject)}</b></header><div lang="${escapeHtml(parts.lang)}" style="${escapeHtml(parts.bodyStyle)}">${fragment}</div></article>`;
}

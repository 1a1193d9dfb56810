import { commonOfAll } from '@vocabula/core/proof';
import { computed, type Ref } from 'vue';
import { arranged, varying, type Order } from '../table/filter';
import type { SentSheet } from '../table/protocol';
import type { ProofingStore } from '../table/useProofing';

/** What the list of all messages is filtered and ordered by. */
export interface Arrangement {
  /** One of the values of `choices`; empty for all messages, `any` for those with a blank or finding. */
  readonly condition: Ref<string>;
  readonly words: Ref<string>;
  readonly order: Ref<Order>;
}
/** A column with at most this many values can be filtered by value. */
const MAX_VALUES = 8;

/** The messages of all recipients: which are shown, what they have in common, and in which columns they differ. */
export function useAllMessages(proofing: ProofingStore, { condition, words, order }: Arrangement) {
  const sheets = computed(() => proofing.recipients.sheets);
  const labelOf = (at: number): string => proofing.recipients.cases[at]?.label ?? `Row ${at + 1}`;
  const numbers = computed(() =>
    arranged(sheets.value, { condition: condition.value, words: words.value, order: order.value }, labelOf),
  );
  /** Cache of `common`: while more messages come, only the new ones are compared. */
  let cache: { readonly sheets: readonly (SentSheet | undefined)[]; readonly common: readonly number[] } = {
    sheets: [],
    common: [],
  };
  const common = computed(() => {
    const now = numbers.value.map((at) => sheets.value[at]);
    const goesOn = cache.sheets.length > 0 && cache.sheets.every((sheet, at) => now[at] === sheet);
    const found =
      commonOfAll(
        (function* () {
          if (goesOn) yield cache.common;
          for (const sheet of goesOn ? now.slice(cache.sheets.length) : now) yield sheet?.lines ?? [];
        })(),
      ) ?? [];
    cache = { sheets: now, common: found };
    return found;
  });
  const shownColumns = computed(() => varying(sheets.value, proofing.values.length, proofing.passages.length));
  const blankKeys = computed(() => new Set(sheets.value.flatMap((sheet) => sheet?.blanks ?? [])));
  const values = computed(() =>
    proofing.values.flatMap((each, at) =>
      shownColumns.value.values.includes(at) || blankKeys.value.has(each.key) ? [{ at, ...each }] : [],
    ),
  );
  const passages = computed(() =>
    shownColumns.value.passages.flatMap((at) => {
      const each = proofing.passages[at];
      return each ? [{ at, ...each }] : [];
    }),
  );

  /** What can be filtered by, each with its number of messages. */
  const choices = computed(() => {
    const there = sheets.value.filter((sheet) => sheet !== undefined);
    const codes = new Map<string, number>();
    for (const sheet of there)
      for (const code of new Set(sheet.findings.map((finding) => finding.code)))
        codes.set(code, (codes.get(code) ?? 0) + 1);
    const blank = there.filter((sheet) => sheet.blanks.length > 0).length;
    return [
      ...(blank > 0 ? [{ value: 'blank', words: `something blank (${blank})` }] : []),
      ...[...codes].map(([code, count]) => ({
        value: `finding ${code}`,
        words: `${code.replace(/-/g, ' ')} (${count})`,
      })),
      ...passages.value.flatMap(({ at, label }) => {
        const kept = there.filter((sheet) => sheet.kept[at] === '1').length;
        return [
          { value: `kept ${at}`, words: `${label}: kept (${kept})` },
          { value: `gone ${at}`, words: `${label}: left out (${there.length - kept})` },
        ];
      }),
      ...values.value.flatMap(({ at, label }) => {
        const counts = new Map<string, number>();
        for (const sheet of there) {
          const value = sheet.values[at] ?? '';
          counts.set(value, (counts.get(value) ?? 0) + 1);
          // Too many values to choose from.
          if (counts.size > MAX_VALUES) break;
        }
        return counts.size > 1 && counts.size <= MAX_VALUES
          ? [...counts].map(([value, count]) => ({
              value: `value ${at} ${value}`,
              words: `${label}: ${value || 'empty'} (${count})`,
            }))
          : [];
      }),
    ];
  });
  return { sheets, labelOf, numbers, common, values, passages, choices };
}

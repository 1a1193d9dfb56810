import type { Variable } from '@vocabula/core';
import type { TextSummary } from '@vocabula/contract';
import { computed, type Ref } from 'vue';
import { useHouse } from '../../ui/house';
import { useMe } from '../../ui/me';
import { caretPath } from '../caret';
import { bracketsAround } from '../editor/brackets';
import type { Insertable } from '../bar/insertions';
import type { Proof } from '../proof/useProof';
import type { Manuscript } from '../useManuscript';
import type { Fields } from './useFields';

interface Parts {
  readonly manuscript: Pick<Manuscript, 'editor' | 'rest' | 'brackets' | 'variables'>;
  readonly fields: Pick<Fields, 'beat' | 'line'>;
  readonly proof: Pick<Proof, 'set'>;
  readonly texts: Readonly<Ref<readonly TextSummary[]>>;
  /** Name of the text itself. */
  readonly own: string;
}
/** Fields of a recipient before a sample set says which there are. */
const USUAL_FIELDS = [{ key: 'first_name' }, { key: 'email' }];

/** Everything that can be inserted at the caret. */
export function useInsertable({ manuscript, fields, proof, texts, own }: Parts) {
  const me = useMe();
  const house = useHouse();
  const { editor, variables } = manuscript;
  /** Facts of the house as variables, called `house.x`. */
  const facts = computed<readonly Variable[]>(() =>
    Object.entries(house.house.facts).map(([key, { variable }]) => ({ ...variable, key: `house.${key}` })),
  );
  /** The columns of the lists that are repeated around the caret, innermost first. */
  const columns = computed<readonly Variable[]>(() => {
    void manuscript.rest.value;
    const { from, to } = editor.state.selection;
    return bracketsAround(manuscript.brackets.value, from, to, [])
      .reverse()
      .flatMap(({ condition }) =>
        condition && !condition.not ? (variables.value.find(({ key }) => key === condition.of)?.columns ?? []) : [],
      );
  });
  const inBody = computed(() => {
    void fields.beat.value;
    return fields.line.value === undefined && caretPath(editor)[0] === editor.state.doc.childCount - 1;
  });
  const insertable = computed<Insertable>(() => ({
    variables: variables.value,
    columns: columns.value,
    fields: [
      ...(proof.set.value?.columns ?? USUAL_FIELDS).map(({ key }) => `recipient.${key}`),
      ...Object.keys(me.fields()).map((key) => `sender.${key}`),
    ],
    facts: facts.value,
    texts: texts.value,
    own,
    inBody: inBody.value,
  }));
  return { facts, insertable };
}

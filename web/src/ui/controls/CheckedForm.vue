<script setup lang="ts" generic="T extends Record<string, unknown>">
/**
 * A form checked by a schema: problems are shown beside their fields, and Enter sends. If sending fails, the input stays
 * and the reason is shown at the end. Fields are bound by `name`. Where others need the values while they are typed, the
 * place holds them (`held`) and binds its fields to them; `name` then only says which problem belongs to which field.
 */
import { Form, type FormResolverOptions, type FormSubmitEvent } from '@primevue/forms';
import { zodResolver } from '@primevue/forms/resolvers/zod';
import { nextTick, ref, useTemplateRef } from 'vue';
import type { ZodType } from 'zod';

const { schema, initial, held, send } = defineProps<{
  schema: ZodType<T>;
  /** Complete initial values. Values without a field are sent unchanged; later changes of this prop are ignored. */
  initial?: T;
  /** The values, where the place holds them. */
  held?: T;
  /** Called with valid values. Its error is shown in the form. */
  send: (values: T) => Promise<unknown>;
}>();
defineSlots<{
  default(given: { problemOf: (field: keyof T & string) => string | undefined; busy: boolean }): unknown;
}>();
const form = useTemplateRef<{ $el: HTMLFormElement; reset(): void }>('form');
const problem = ref('');
const busy = ref(false);
const checked = zodResolver(schema);
const beginning = { ...(initial ?? held) } as T;
/** The values for the schema: the library gives only the values of registered fields. */
const resolver = (given: FormResolverOptions): ReturnType<typeof checked> =>
  checked({
    ...given,
    values:
      held ??
      Object.fromEntries(
        Object.entries(beginning).map(([key, value]) => [key, (given.values as Record<string, unknown>)[key] ?? value]),
      ),
  });

/** State of each field, from the library. */
type Fields = Readonly<Record<string, { readonly error?: { readonly message?: string } } | undefined>>;
const problemIn =
  (fields: unknown) =>
  (field: string): string | undefined =>
    (fields as Fields)[field]?.error?.message;

async function submit({ values, errors, states }: FormSubmitEvent): Promise<void> {
  if (busy.value) return;
  problem.value = '';
  const [wrong] = Object.entries(
    errors as unknown as Readonly<Record<string, readonly { readonly message?: string }[]>>,
  );
  if (wrong) {
    const [field, said] = wrong;
    // Problems without a field are shown at the end.
    if (!(field in states)) problem.value = `${field}: ${said[0]?.message ?? 'is not right'}`;
    await nextTick();
    form.value?.$el.querySelector<HTMLElement>(`[name="${field}"], [data-field="${field}"] input`)?.focus();
    return;
  }
  if (values === undefined) return void (problem.value = 'This cannot be sent as it is.');
  busy.value = true;
  try {
    await send(values as T);
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'That did not work.';
  } finally {
    busy.value = false;
  }
}
defineExpose({
  /** Sends the form, as Enter does. */
  submit: () => form.value?.$el.requestSubmit(),
  /** Resets the form to its initial values. */
  reset: () => form.value?.reset(),
});
</script>

<template>
  <Form
    ref="form"
    v-slot="fields"
    novalidate
    :initial-values="beginning"
    :resolver="resolver"
    :validate-on-value-update="false"
    :validate-on-blur="false"
    @submit="submit"
  >
    <slot :problem-of="problemIn(fields)" :busy="busy" />
    <p v-if="problem" class="error problem" role="alert">⚠ {{ problem }}</p>
    <!-- Browsers send a form on Enter only if it has a button for it; the visible one may stand elsewhere. -->
    <input type="submit" hidden />
  </Form>
</template>

<style scoped>
.problem {
  grid-column: 1 / -1;
}
</style>

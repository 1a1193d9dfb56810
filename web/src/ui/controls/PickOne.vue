<script setup lang="ts" generic="T extends string | number | undefined">
/**
 * One of a list: the library's select. Options are given as a list, or written as `<option>` in the slot. It is named by
 * the label it stands in, or by one that is given. Keys that a closed list does not need go on to whatever it stands in.
 */
import { ChevronDown } from '@lucide/vue';
import Select from 'primevue/select';
import { computed, onMounted, ref, useAttrs, useId, useTemplateRef, type VNode } from 'vue';
import { writtenOptions } from './writtenOptions';

export interface Choice {
  readonly value: string | number;
  readonly words: string;
}
defineOptions({ inheritAttrs: false });
const { options, labelledBy, label, describedBy, modelValue, autofocus } = defineProps<{
  modelValue?: T | undefined;
  options?: readonly (Choice | NonNullable<T>)[];
  labelledBy?: string | undefined;
  label?: string | undefined;
  describedBy?: string | undefined;
  inputId?: string;
  disabled?: boolean;
  size?: 'small' | 'large';
  invalid?: boolean;
  /** A class for what takes the focus. */
  ptLabelClass?: string;
  /** Takes the focus when it appears. */
  autofocus?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: T] }>();
const slots = defineSlots<{ default?(): VNode[] }>();

interface Listed {
  readonly value: unknown;
  readonly words: string;
  readonly disabled?: boolean;
}
/** What the select shows; called while rendering, where a slot may be read. */
function listed(): Record<string, unknown> {
  const written = writtenOptions(slots.default?.() ?? []);
  const given: Listed[] = (options ?? []).map((each) =>
    typeof each === 'object' ? each : { value: each, words: String(each) },
  );
  const all: readonly Listed[] = [...given, ...written.options];
  // The library takes an empty value for none: its words show as what stands there while nothing is chosen.
  const empty = all.find(({ value }) => value === '')?.words ?? '';
  // What only says that nothing is chosen is not offered.
  const offered = all.filter(({ value, disabled }) => !(value === '' && disabled));
  if (written.groups.length === 0) return { options: offered, placeholder: empty };
  const plain = offered.length > 0 ? [{ words: '', items: offered }] : [];
  return {
    options: [...plain, ...written.groups],
    optionGroupLabel: 'words',
    optionGroupChildren: 'items',
    placeholder: empty,
  };
}

const attrs = useAttrs();
const named = computed(() => label ?? (attrs['aria-label'] as string | undefined));
const own = useId();
const select = useTemplateRef<{ $el: HTMLElement }>('select');
const found = ref<string>();
/** In a label, its first words name the select. */
onMounted(() => {
  if (autofocus) focus();
  if (named.value !== undefined || labelledBy !== undefined) return;
  const around = select.value?.$el.closest('label');
  const words = around?.querySelector<HTMLElement>(':scope > span:not(.p-select)') ?? around;
  if (!words) return;
  words.id ||= `${own}-label`;
  found.value = words.id;
});
const namedBy = computed(() => labelledBy ?? found.value);

const focus = (): void => select.value?.$el.querySelector<HTMLElement>('[role=combobox]')?.focus();

const open = ref(false);
/** Whatever a closed list would swallow goes on as if there were no list. */
function passOn(event: KeyboardEvent): void {
  // Enter belongs to the form around it; space and the arrows open it.
  if (open.value || !['Escape', 'Enter'].includes(event.key)) return;
  event.stopImmediatePropagation();
  const above = (event.currentTarget as HTMLElement).parentElement;
  const again = new KeyboardEvent('keydown', {
    ...event,
    key: event.key,
    code: event.code,
    bubbles: true,
    cancelable: true,
  });
  if (above && !above.dispatchEvent(again)) event.preventDefault();
  else if (event.key === 'Enter') (event.currentTarget as HTMLElement).closest('form')?.requestSubmit();
}
defineExpose({ focus });
</script>

<template>
  <Select
    ref="select"
    v-bind="{ ...$attrs, ...listed() }"
    :model-value="modelValue"
    option-value="value"
    option-label="words"
    option-disabled="disabled"
    :aria-labelledby="namedBy"
    :aria-label="named"
    :disabled="disabled"
    :size="size"
    :invalid="invalid"
    :label-id="inputId"
    :label-class="ptLabelClass"
    :pt="{ label: { 'aria-describedby': describedBy } }"
    @keydown.capture="passOn($event)"
    @update:model-value="emit('update:modelValue', $event as T)"
    @before-show="open = true"
    @before-hide="open = false"
  >
    <template #dropdownicon><ChevronDown :size="14" :stroke-width="1.5" aria-hidden="true" /></template>
  </Select>
</template>

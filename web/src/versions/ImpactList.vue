<script setup lang="ts">
/** What publishing does to other messages: every template that depends on it, on its own samples, before and after. */
import PushButton from '../ui/controls/PushButton.vue';
import type { Dependents, TemplateImpact } from '@vocabula/contract';
import { computed, onMounted, onUnmounted, ref, shallowRef } from 'vue';
import { api } from '../api/client';
import ComparedWords from '../ui/ComparedWords.vue';

const { name } = defineProps<{ name: string }>();
const emit = defineEmits<{ done: [changed: number, templates: number] }>();
const dependents = shallowRef<Dependents>();
const impacts = shallowRef<readonly TemplateImpact[]>([]);
const problem = ref('');
const stopped = ref(false);
const open = ref<string>();

const done = computed(() => dependents.value !== undefined && impacts.value.length === dependents.value.texts.length);
const changed = computed(() => impacts.value.filter((each) => each.changed > 0));
const unchanged = computed(() => impacts.value.filter((each) => each.changed === 0));
const messages = computed(() => impacts.value.reduce((sum, each) => sum + each.changed, 0));

async function work(): Promise<void> {
  try {
    dependents.value ??= await api.dependents(name);
    for (const { name: template } of dependents.value.texts.slice(impacts.value.length)) {
      if (stopped.value) return;
      const impact = await api.impact(name, template);
      impacts.value = [...impacts.value, impact];
      if (impact.changed > 0) open.value ??= impact.name;
    }
    emit('done', messages.value, changed.value.length);
  } catch (failure) {
    problem.value = failure instanceof Error ? failure.message : 'The impact could not be calculated.';
  }
}
onMounted(() => void work());
onUnmounted(() => (stopped.value = true));
function goOn(): void {
  stopped.value = false;
  void work();
}
const counted = (count: number, one: string, many: string): string => `${count} ${count === 1 ? one : many}`;
</script>

<template>
  <section class="impact" aria-label="Impact">
    <p v-if="problem" class="error" role="alert">⚠ {{ problem }}</p>
    <p v-else-if="!dependents" class="quiet">Finding the texts that use it…</p>
    <template v-else>
      <p role="status">
        <template v-if="dependents.texts.length + dependents.hidden === 0"
          >No published template uses it. Nothing changes for colleagues.</template
        >
        <template v-else-if="done && changed.length === 0"
          >None of the {{ dependents.texts.length }} templates that depend on it reads differently for its
          samples.</template
        >
        <template v-else
          ><strong>{{ counted(changed.length, 'template', 'templates') }}</strong> of
          {{ dependents.texts.length + dependents.hidden }} read differently:
          <strong>{{ counted(messages, 'sample message', 'sample messages') }}</strong> change.
          <template v-if="unchanged.length"> {{ unchanged.length }} stay as they are.</template>
          <template v-if="dependents.hidden">
            {{ dependents.hidden }} more depend on it in folders you do not see.</template
          ></template
        >
      </p>
      <p v-if="!done" class="quiet small">
        {{ impacts.length }} of {{ dependents.texts.length }} templates rendered before and after.
        <PushButton kind="plain" size="small" v-if="!stopped" @click="stopped = true">Stop</PushButton
        ><PushButton kind="plain" size="small" v-else @click="goOn">Go on</PushButton>
      </p>
      <details
        v-for="each in changed"
        :key="each.name"
        class="template"
        :open="open === each.name"
        @toggle="($event.target as HTMLDetailsElement).open && (open = each.name)"
      >
        <summary>
          <span>{{ each.title }}</span><span class="quiet small"
            >{{ each.changed }} of {{ each.changed + each.unchanged }} change · {{ each.set }}</span
          >
        </summary>
        <div v-for="(message, index) in each.messages" :key="index" class="message">
          <p class="small quiet who">{{ message.recipient }}</p>
          <div v-for="side in ['before', 'after'] as const" :key="side" class="side" :class="side" :data-side="side">
            <ComparedWords
              :left="[message.before.subject, ...message.before.text.split('\n').filter(Boolean)]"
              :right="[message.after.subject, ...message.after.text.split('\n').filter(Boolean)]"
              :side="side === 'before' ? 'left' : 'right'"
            />
            <p
              v-if="message.before.text === message.after.text && message.before.subject === message.after.subject"
              class="quiet small"
            >
              The words are the same; the look changes.
            </p>
          </div>
        </div>
        <p v-if="each.messages.length < each.changed" class="quiet small more">
          {{ each.changed - each.messages.length }} more change in the same set.
        </p>
      </details>
      <p v-if="unchanged.length" class="quiet small">
        Unchanged: {{ unchanged.map(({ title }) => title).join(', ') }}.
      </p>
    </template>
  </section>
</template>

<style scoped>
.impact {
  display: grid;
  gap: 12px;
}
.template {
  border-top: 1px solid var(--hair);
  padding-top: 8px;
}
summary {
  cursor: pointer;
  font-weight: 500;
}
summary span + span {
  margin-left: 12px;
  font-weight: 400;
}
.message {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 2px 32px;
  padding: 10px 0 10px 16px;
}
.message + .message {
  border-top: 1px dotted var(--edge);
}
.who {
  grid-column: 1 / -1;
}
.side::before {
  content: attr(data-side);
  font-size: 0.75rem;
  color: var(--quiet);
}
.before :deep(mark) {
  text-decoration: line-through;
  font-weight: 400;
}
.more {
  padding-left: 16px;
}
@media (max-width: 699px) {
  .message {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

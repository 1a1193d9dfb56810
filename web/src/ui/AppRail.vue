<script setup lang="ts">
import PushButton from './controls/PushButton.vue';
import {
  BookOpen,
  ChartSpline,
  Keyboard,
  Mail,
  PenLine,
  ScanText,
  Settings,
  Table2,
  TextCursorInput,
} from '@lucide/vue';
import { computed } from 'vue';
import { useMe } from './me';

defineEmits<{ keys: [] }>();
const PLACES: readonly {
  readonly to: string;
  readonly words: string;
  readonly icon: typeof BookOpen;
  readonly author?: boolean;
  readonly also?: readonly string[];
}[] = [
  { to: '/catalogue', words: 'Catalogue', icon: BookOpen },
  {
    to: '/write',
    words: 'Write',
    icon: PenLine,
    author: true,
    also: ['/publish', '/versions', '/from-mails', '/languages'],
  },
  { to: '/proof', words: 'Proof', icon: ScanText, author: true },
  { to: '/samples', words: 'Samples', icon: Table2, author: true },
  { to: '/fill', words: 'Fill', icon: TextCursorInput, also: ['/many', '/recipients', '/go', '/series', '/start'] },
  { to: '/mailroom', words: 'Mailroom', icon: Mail, also: ['/standing'] },
  { to: '/looking-back', words: 'Looking back', icon: ChartSpline },
  { to: '/settings', words: 'Settings', icon: Settings },
];
const me = useMe();
/** Colleagues fill: their place comes first, and the authors’ places are not theirs. */
const places = computed(() =>
  me.isAuthor
    ? PLACES
    : PLACES.filter((place) => !place.author).sort((a, b) => Number(b.to === '/fill') - Number(a.to === '/fill')),
);
const isOn = (place: (typeof PLACES)[number], path: string): boolean =>
  [place.to, ...(place.also ?? [])].some((each) => path.startsWith(each));
</script>

<template>
  <nav class="rail" aria-label="Places">
    <span class="wordmark" aria-hidden="true">V</span>
    <RouterLink
      v-for="place in places"
      :key="place.to"
      :to="place.to"
      :class="{ on: isOn(place, $route.path) }"
      :aria-current="isOn(place, $route.path) ? 'page' : undefined"
    >
      <component :is="place.icon" :size="20" :stroke-width="1.5" aria-hidden="true" />{{ place.words }}
    </RouterLink>
    <PushButton kind="plain" class="keys" @click="$emit('keys')">
      <Keyboard :size="20" :stroke-width="1.5" aria-hidden="true" />Keys
    </PushButton>
  </nav>
</template>

<style scoped>
.rail {
  width: 64px;
  border-right: 1px solid var(--hair);
  padding-top: 8px;
  display: flex;
  flex-direction: column;
  align-items: stretch;
  font-size: 0.6875rem;
  line-height: 0.875rem;
  flex: none;
}
.wordmark {
  font: 500 1.375rem/2.5rem var(--serif);
  text-align: center;
  margin-bottom: 6px;
}
a,
.keys {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: 3px;
  min-height: 54px;
  padding: 8px 2px 4px;
  text-align: center;
  color: var(--quiet);
  text-decoration: none;
  font-size: inherit;
  line-height: inherit;
  border: 0;
  border-radius: 0;
}
a:hover,
.keys:hover {
  background: var(--hover);
}
a.on {
  color: var(--ink);
  font-weight: 600;
  box-shadow: inset 3px 0 var(--action);
}
a:focus-visible,
.keys:focus-visible {
  outline-offset: -2px;
}
.keys {
  margin-top: auto;
}
@media (max-width: 899px) {
  .rail {
    width: auto;
    flex-direction: row;
    border-right: 0;
    border-bottom: 1px solid var(--hair);
    padding: 0 8px;
    height: 48px;
    align-items: stretch;
    overflow-x: auto;
  }
  .wordmark {
    line-height: 3rem;
    margin: 0 12px 0 4px;
  }
  a,
  .keys {
    flex-direction: row;
    height: auto;
    padding: 0 10px;
    gap: 6px;
  }
  @media (max-width: 599px) {
    /* A name of two words takes two lines. */
    .rail {
      height: auto;
      min-height: 48px;
    }
    .wordmark {
      display: none;
    }
    a,
    .keys {
      flex: 1;
      flex-direction: column;
      min-height: 48px;
      padding: 5px 1px 3px;
      gap: 1px;
      line-height: 0.75rem;
    }
  }
  a.on {
    box-shadow: inset 0 -3px var(--action);
  }
  .keys {
    margin: 0 0 0 auto;
  }
}
</style>

<script setup lang="ts">
/** Settings: oneself, the people, the organisation's facts, how its messages look. */
import { computed, defineAsyncComponent, onMounted } from 'vue';
import { useRoute } from 'vue-router';
import NoticeLine from '../ui/NoticeLine.vue';
import { useNotice } from '../ui/notice';
import { useMe } from '../ui/me';

/** Each part is loaded when it is opened. */
const AuditList = defineAsyncComponent(() => import('./AuditList.vue'));
const FactsForm = defineAsyncComponent(() => import('./FactsForm.vue'));
const GroupsForm = defineAsyncComponent(() => import('./GroupsForm.vue'));
const HolidaysForm = defineAsyncComponent(() => import('./HolidaysForm.vue'));
const KeysForm = defineAsyncComponent(() => import('./KeysForm.vue'));
const MailForm = defineAsyncComponent(() => import('./MailForm.vue'));
const PeopleForm = defineAsyncComponent(() => import('./PeopleForm.vue'));
const ProfileForm = defineAsyncComponent(() => import('./ProfileForm.vue'));
const SignInForm = defineAsyncComponent(() => import('./SignInForm.vue'));
const StyleForm = defineAsyncComponent(() => import('./StyleForm.vue'));
const WaysForm = defineAsyncComponent(() => import('./WaysForm.vue'));

const PARTS = [
  ['you', 'You', ProfileForm, 'colleague'],
  ['sign-in', 'Signing in', SignInForm, 'colleague'],
  ['programs', 'For other programs', KeysForm, 'colleague'],
  ['handing-over', 'Handing over', WaysForm, 'colleague'],
  ['facts', 'Facts', FactsForm, 'author'],
  ['style', 'House style', StyleForm, 'author'],
  ['holidays', 'Holidays', HolidaysForm, 'author'],
  ['people', 'People', PeopleForm, 'administrator'],
  ['groups', 'Groups', GroupsForm, 'administrator'],
  ['mail', 'Mail service', MailForm, 'administrator'],
  ['audit', 'Audit trail', AuditList, 'administrator'],
] as const;
const route = useRoute();
const notice = useNotice();
const me = useMe();
const parts = computed(() =>
  PARTS.filter(
    ([, , , who]) =>
      who === 'colleague' || (who === 'author' && me.isAuthor) || (who === 'administrator' && me.isAdministrator),
  ),
);
const part = computed(() => parts.value.find(([key]) => key === route.params.part) ?? PARTS[0]);
onMounted(() => notice.clear());
</script>

<template>
  <div class="settings">
    <header class="head"><h1>Settings</h1></header>
    <div class="two">
      <nav aria-label="Settings">
        <RouterLink
          v-for="[key, words] in parts"
          :key="key"
          class="row"
          :to="{ name: 'settings', params: { part: key } }"
          :aria-current="part[0] === key ? 'page' : undefined"
          >{{ words }}</RouterLink
        >
      </nav>
      <main class="part"><component :is="part[2]" :key="part[0]" /></main>
    </div>
    <footer class="foot"><NoticeLine /></footer>
  </div>
</template>

<style scoped>
.settings {
  display: flex;
  flex-direction: column;
}
.two {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: 176px minmax(0, 1fr);
}
nav {
  border-right: 1px solid var(--hair);
  padding: 16px 0;
}
.row[aria-current] {
  background: var(--selected);
  box-shadow: inset 3px 0 var(--action);
  font-weight: 500;
}
.part {
  overflow: auto;
  padding: 20px 28px 48px;
}
@media (max-width: 899px) {
  .two {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto minmax(0, 1fr);
  }
  nav {
    display: flex;
    overflow-x: auto;
    border: 0;
    border-bottom: 1px solid var(--hair);
    padding: 0;
  }
  nav .row {
    width: auto;
    white-space: nowrap;
  }
  .part {
    padding: 16px;
  }
}
</style>

import '@fontsource-variable/commissioner';
import '@fontsource-variable/literata';
import 'virtual:library-styles.css';
import './ui/styles.css';
import './ui/theme/look.css';
import { createPinia } from 'pinia';
import PrimeVue from 'primevue/config';
import { createApp } from 'vue';
import { createWebHistory } from 'vue-router';
import App from './App.vue';
import { makeRouter } from './router';
import { firstWeekday } from './ui/dates/reader';

const app = createApp(App)
  .use(createPinia())
  .use(makeRouter(createWebHistory()))
  // Its styles are in the style sheet already.
  .use(PrimeVue, { ripple: false, theme: 'none' });
// Weeks begin as the reader's do; the library's words come whole or not at all.
const { locale } = app.config.globalProperties.$primevue.config;
if (locale) locale.firstDayOfWeek = firstWeekday();
app.mount('#app');

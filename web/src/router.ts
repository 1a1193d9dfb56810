/** The places and their addresses. Each is loaded when it is first gone to. */
import { createRouter, createWebHistory } from 'vue-router';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/catalogue' },
    {
      path: '/catalogue/:name?',
      name: 'catalogue',
      component: () => import('./catalogue/CataloguePlace.vue'),
      meta: { title: 'Catalogue' },
    },
    {
      path: '/write/:name?',
      name: 'write',
      component: () => import('./write/WritePlace.vue'),
      meta: { title: 'Write' },
    },
    {
      path: '/proof/:name?/:view(one|all|beside|hard|pairing|findings|send|report)?',
      name: 'proof',
      component: () => import('./proof/ProofPlace.vue'),
      meta: { title: 'Proof' },
    },
    {
      path: '/samples/:id?',
      name: 'samples',
      component: () => import('./samples/SamplesPlace.vue'),
      meta: { title: 'Samples' },
    },
    { path: '/fill', name: 'fill', component: () => import('./fill/FillHome.vue'), meta: { title: 'Fill' } },
    { path: '/fill/:id', name: 'filling', component: () => import('./fill/FillPlace.vue'), meta: { title: 'Fill' } },
    {
      path: '/settings/:part?',
      name: 'settings',
      component: () => import('./settings/SettingsPlace.vue'),
      meta: { title: 'Settings' },
    },
    { path: '/:rest(.*)*', name: 'lost', component: () => import('./ui/LostPlace.vue'), meta: { title: 'Not found' } },
  ],
});

router.afterEach((to) => {
  document.title = `${String(to.meta.title ?? '')} · Vocabula`;
});

/** The places and their addresses. The code of a place is loaded when it is first opened. */
import {
  createRouter,
  type RouteLocationNormalized,
  type RouteLocationRaw,
  type Router,
  type RouteRecordRaw,
  type RouterHistory,
} from 'vue-router';
import { ApiProblem, whenSignedOut } from './api/client';
import { useMe } from './ui/me';

declare module 'vue-router' {
  interface RouteMeta {
    readonly title?: string;
    /** For authors and administrators. */
    readonly author?: boolean;
    /** For whoever comes, signed in or not. */
    readonly open?: boolean;
    /** Its page is of one thing: another thing of the kind is another page, made anew. */
    readonly each?: boolean;
  }
}

const ROUTES: readonly RouteRecordRaw[] = [
  { path: '/', name: 'home', component: { render: () => null } },
  {
    path: '/sign-in',
    name: 'sign-in',
    component: () => import('./door/SignInPlace.vue'),
    meta: { title: 'Sign in', open: true },
  },
  {
    path: '/enter/:token',
    name: 'enter',
    component: () => import('./door/EnterPlace.vue'),
    meta: { each: true, title: 'Welcome', open: true },
  },
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
    meta: { title: 'Write', author: true },
  },
  {
    path: '/from-mails',
    name: 'from-mails',
    component: () => import('./derive/DerivePlace.vue'),
    meta: { title: 'From past mails', author: true },
  },
  {
    path: '/publish/:name',
    name: 'publish',
    component: () => import('./versions/PublishPlace.vue'),
    meta: { each: true, title: 'Publish', author: true },
  },
  {
    path: '/versions/:name',
    name: 'versions',
    component: () => import('./versions/VersionsPlace.vue'),
    meta: { title: 'Versions', author: true },
  },
  {
    path: '/languages/:name',
    name: 'languages',
    component: () => import('./languages/LanguagesPlace.vue'),
    meta: { title: 'Languages', author: true },
  },
  {
    path: '/trial/:name',
    name: 'trial',
    component: () => import('./trials/TrialPlace.vue'),
    meta: { each: true, title: 'Trial', author: true },
  },
  {
    path: '/proof/:name?/:view(one|all|beside|arrives|hard|pairing|findings|send|report)?',
    name: 'proof',
    component: () => import('./proof/ProofPlace.vue'),
    meta: { title: 'Proof', author: true },
  },
  {
    path: '/samples/:id?',
    name: 'samples',
    component: () => import('./samples/SamplesPlace.vue'),
    meta: { title: 'Samples', author: true },
  },
  {
    path: '/go/:call',
    name: 'go',
    component: () => import('./fill/GoPlace.vue'),
    meta: { each: true, title: 'Fill' },
  },
  {
    path: '/many/:id',
    name: 'many',
    component: () => import('./many/ManyPlace.vue'),
    meta: { each: true, title: 'To many' },
  },
  {
    path: '/series/:id?',
    name: 'running',
    component: () => import('./series/RunsPlace.vue'),
    meta: { title: 'Series' },
  },
  {
    path: '/start/:name',
    name: 'start-series',
    component: () => import('./series/StartPlace.vue'),
    meta: { each: true, title: 'Start a series' },
  },
  {
    path: '/recipients/:address?',
    name: 'recipients',
    component: () => import('./recipients/RecipientsPlace.vue'),
    meta: { title: 'Recipients' },
  },
  {
    path: '/standing/:id?',
    name: 'standing',
    component: () => import('./standing-replies/StandingPlace.vue'),
    meta: { title: 'Standing replies' },
  },
  {
    path: '/mailroom/:stack(answer|drafts|waiting|gone)?/:id?',
    name: 'mailroom',
    component: () => import('./mailroom/MailroomPlace.vue'),
    meta: { title: 'Mailroom' },
  },
  {
    path: '/looking-back/:name?',
    name: 'looking-back',
    component: () => import('./insight/LookingBackPlace.vue'),
    meta: { title: 'Looking back' },
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
];

/** Where somebody begins: colleagues fill, the others write. */
const homeOf = (isAuthor: boolean): RouteLocationRaw => ({ name: isAuthor ? 'catalogue' : 'fill' });
const toSignIn = (to: RouteLocationNormalized): RouteLocationRaw => ({
  name: 'sign-in',
  query: to.fullPath === '/' ? {} : { to: to.fullPath },
});

/** Starts loading the code of a place in parallel with the check of the session: one round trip less. */
function loadCode(to: RouteLocationNormalized): void {
  for (const { components } of to.matched) {
    const load: unknown = components?.default;
    // A failure is reported when the router itself loads the place.
    if (typeof load === 'function') void Promise.resolve((load as () => unknown)()).catch(() => undefined);
  }
}

/**
 * A place that settles its own address, as when its list has come, does not keep anybody in it: somebody who is on the
 * way to another place, whose code may still be loading, gets there.
 */
export function keepsGoing(router: Router): void {
  /** The last way that was set out on, while it leads to another place. */
  let leaving: symbol | undefined;
  const push = router.push.bind(router);
  router.push = (to) => {
    const mine = Symbol('way');
    leaving = router.resolve(to).name === router.currentRoute.value.name ? undefined : mine;
    return push(to).finally(() => {
      if (leaving === mine) leaving = undefined;
    });
  };
  const replace = router.replace.bind(router);
  router.replace = (to) => (leaving ? Promise.resolve() : replace(to));
}

/** The router with its guards: visitors must sign in first, and only authors open the places of authors. */
export function makeRouter(history: RouterHistory): Router {
  const router = createRouter({ history, routes: ROUTES });
  router.beforeEach(async (to) => {
    loadCode(to);
    if (to.meta.open) return true;
    const me = useMe();
    try {
      await me.load();
    } catch (problem) {
      // Without a connection one still gets to what the browser keeps.
      if (problem instanceof ApiProblem && problem.status === 401) return toSignIn(to);
      return true;
    }
    if (to.name === 'home') return homeOf(me.isAuthor);
    return to.meta.author && !me.isAuthor ? { name: 'lost', params: { rest: ['not', 'yours'] } } : true;
  });

  keepsGoing(router);
  router.afterEach((to) => {
    document.title = `${to.meta.title ?? ''} · Vocabula`;
  });

  // A session that has ended elsewhere: the way back leads to where one was, with what is kept in the browser.
  whenSignedOut(() => {
    const { currentRoute } = router;
    if (!currentRoute.value.meta.open && currentRoute.value.matched.length > 0)
      void router.push(toSignIn(currentRoute.value));
  });
  return router;
}

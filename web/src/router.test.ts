/** Going from place to place. */
import { describe, expect, it } from 'vitest';
import { createMemoryHistory, createRouter, type Router } from 'vue-router';
import { keepsGoing } from './router';

const place = { render: () => null };
function routerWith(slow: Promise<typeof place>): Router {
  const router = createRouter({
    history: createMemoryHistory(),
    routes: [
      { path: '/mailroom/:id?', name: 'mailroom', component: place },
      { path: '/standing', name: 'standing', component: () => slow },
      { path: '/fill', name: 'fill', component: place },
    ],
  });
  keepsGoing(router);
  return router;
}

describe('somebody on the way to another place', () => {
  it('gets there, though the place they leave settles its address meanwhile', async () => {
    let come: (loaded: typeof place) => void = () => undefined;
    const router = routerWith(new Promise((resolve) => (come = resolve)));
    await router.push('/mailroom');
    const going = router.push('/standing');
    await router.replace({ name: 'mailroom', params: { id: '1' } });
    come(place);
    await going;
    expect(router.currentRoute.value.name).toBe('standing');
  });
  it('may think better of it, and afterwards places settle their addresses again', async () => {
    const router = routerWith(new Promise(() => undefined));
    await router.push('/mailroom');
    void router.push('/standing');
    await router.push('/fill');
    await router.push('/mailroom');
    await router.replace({ name: 'mailroom', params: { id: '2' } });
    expect(router.currentRoute.value.params.id).toBe('2');
  });
  it('stays where the code of the other place cannot be loaded, and the place settles its address', async () => {
    const router = routerWith(Promise.reject(new Error('away')));
    await router.push('/mailroom');
    await expect(router.push('/standing')).rejects.toThrow();
    await router.replace({ name: 'mailroom', params: { id: '3' } });
    expect(router.currentRoute.value.params.id).toBe('3');
  });
});

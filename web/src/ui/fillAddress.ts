/** Where something that can be filled is filled: a template in Fill, a series where it is started. */
import type { Hit } from '@vocabula/contract';
import type { LocationQueryRaw, RouteLocationRaw } from 'vue-router';

export const fillAddress = (
  { name, kind }: Pick<Hit, 'name' | 'kind'>,
  query: LocationQueryRaw = {},
): RouteLocationRaw =>
  kind === 'series'
    ? { name: 'start-series', params: { name } }
    : { name: 'filling', params: { id: 'new' }, query: { template: name, ...query } };

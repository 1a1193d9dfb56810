/** Component tests run with the component library as the pages do, without its styles. */
import { defineWebWorkers } from '@vitest/web-worker/pure';
import { config } from '@vue/test-utils';
import PrimeVue from 'primevue/config';

// Anew for each file, whose environment begins without.
defineWebWorkers();
if (!config.global.plugins.some((plugin) => Array.isArray(plugin) && plugin[0] === PrimeVue))
  config.global.plugins.push([PrimeVue, { unstyled: true }]);

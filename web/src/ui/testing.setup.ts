/** Component tests run with the component library as the pages do, without its styles. */
import { config } from '@vue/test-utils';
import PrimeVue from 'primevue/config';

// Once for all files of a process.
if (!config.global.plugins.some((plugin) => Array.isArray(plugin) && plugin[0] === PrimeVue))
  config.global.plugins.push([PrimeVue, { unstyled: true }]);

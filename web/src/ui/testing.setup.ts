import '@vitest/web-worker';
/** Component tests run with the component library as the pages do, without its styles. */
import { config } from '@vue/test-utils';
import PrimeVue from 'primevue/config';

config.global.plugins.push([PrimeVue, { unstyled: true }]);

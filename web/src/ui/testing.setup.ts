/** Component tests run with the component library as the pages do, without its styles. */
import { config } from '@vue/test-utils';
import PrimeVue from 'primevue/config';

// Once for all files of a process.
if (!config.global.plugins.some((plugin) => Array.isArray(plugin) && plugin[0] === PrimeVue))
  config.global.plugins.push([PrimeVue, { unstyled: true }]);

/**
 * What stands in for a worker where none is wanted: it never answers. A page without it fails while it is set up, which
 * leaves the framework in the middle of that page for all files of the process.
 */
class SilentWorker extends EventTarget {
  postMessage(): void {}
  terminate(): void {}
}
globalThis.Worker ??= SilentWorker as unknown as typeof Worker;

/** Saving a file leaves the page where it is, as the `download` of a link does in browsers; happy-dom would go there. */
const { happyDOM } = globalThis as unknown as {
  happyDOM?: { settings: { navigation: { disableMainFrameNavigation: boolean; disableFallbackToSetURL: boolean } } };
};
if (happyDOM) {
  happyDOM.settings.navigation.disableMainFrameNavigation = true;
  happyDOM.settings.navigation.disableFallbackToSetURL = true;
}

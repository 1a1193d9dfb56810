import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vite';
import { libraryStylesPlugin } from './library-styles.js';
import { inLanguage } from './words/translate.js';

export default defineConfig({
  root: import.meta.dirname,
  plugins: [inLanguage(process.env.LANGUAGE), libraryStylesPlugin(), vue()],
  resolve: {
    alias: { 'primevue/ripple': `${import.meta.dirname}/src/ui/controls/noRipple.ts` },
  },
  // Workers load what they need on need too.
  worker: { format: 'es' },
  build: {
    target: 'es2022',
    chunkSizeWarningLimit: 900,
    modulePreload: { polyfill: false },
    // A font within a style sheet is data, which the content policy does not take.
    assetsInlineLimit: (path) => (/\.woff2?$/.test(path) ? false : undefined),
  },
  server: { host: '127.0.0.1', proxy: { '/api': 'http://127.0.0.1:4180' } },
});

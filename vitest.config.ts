import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

export default defineConfig({
  plugins: [vue()],
  test: {
    include: ['{core,mail,contract,server,cli,web}/src/**/*.test.ts'],
    // Generous, because other work may share the machine.
    testTimeout: 60_000,
    hookTimeout: 60_000,
  },
});

import vue from '@vitejs/plugin-vue';
import { defineConfig } from 'vitest/config';

/** Tests that put something of their own in a module's place: modules they load must be theirs alone. */
const MOCKING = ['core/src/values/a-new-type.test.ts'];

/** Pages whose workers run: what stands in for workers is theirs alone too. */
const WITH_WORKERS = 'web/src/**/*.workers.test.ts';
const PAGE = {
  setupFiles: ['web/src/ui/testing.setup.ts'],
  // Servers on the demo, for those tests of pages that ask for one.
  globalSetup: 'server/src/testing/demo-host.ts',
};

export default defineConfig({
  plugins: [vue()],
  test: {
    // Generous, because other work may share the machine.
    testTimeout: 180_000,
    hookTimeout: 180_000,
    maxWorkers: 2,
    projects: [
      {
        extends: true,
        test: {
          name: 'node',
          include: ['{core,mail,contract,server,cli}/src/**/*.test.ts', 'web/words/*.test.ts'],
          exclude: MOCKING,
          // Modules are loaded once for all files of a process, not once for each, which took longer than the tests.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'page',
          include: ['web/src/**/*.test.ts'],
          exclude: [WITH_WORKERS],
          ...PAGE,
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'workers',
          include: [WITH_WORKERS],
          ...PAGE,
          setupFiles: [...PAGE.setupFiles, 'web/src/ui/testing.workers.ts'],
        },
      },
      { extends: true, test: { name: 'alone', include: MOCKING } },
    ],
  },
});

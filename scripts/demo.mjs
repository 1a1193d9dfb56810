/** `npm run demo`: sets up, builds, and starts with the demo data on an embedded database. */
import { packages, run } from './setup.mjs';

packages();
if (run('npm', ['run', '-s', 'build']) !== 0) process.exit(1);
console.log('Starting with the demo data. Sign in as anybody listed below, or pick them on the page.');
process.exit(
  run(process.execPath, ['--enable-source-maps', 'server/dist/main.js'], {
    env: {
      ...process.env,
      VOCABULA_DEMO: 'demo',
      DATABASE_URL: process.env.DATABASE_URL ?? 'file:data/demo.db',
      LOG_LEVEL: process.env.LOG_LEVEL ?? 'warn',
    },
  }),
);

/** `npm run dev`: the server with the demo data, and the pages with hot replacement. */
import { spawn } from 'node:child_process';
import { packages } from './setup.mjs';

packages();
const children = [
  spawn(process.execPath, ['--watch', '--import', 'tsx', 'server/src/main.ts'], {
    stdio: 'inherit',
    env: { ...process.env, VOCABULA_DEMO: 'demo', DATABASE_URL: 'file:data/demo.db' },
  }),
  spawn('npm', ['run', '-s', 'dev', '--workspace', 'web'], { stdio: 'inherit' }),
];
for (const child of children) child.on('exit', () => children.forEach((other) => other.kill()));

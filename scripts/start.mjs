/** `npm start`: runs what `npm run build` made, and builds where that was not done yet. */
import { existsSync } from 'node:fs';
import { packages, run } from './setup.mjs';

packages();
const isBuilt = existsSync('server/dist/main.js') && existsSync('web/dist/index.html');
if (!isBuilt && run('npm', ['run', '-s', 'build']) !== 0) process.exit(1);
process.setSourceMapsEnabled(true);
// In this process, so that whoever stops it stops the server.
await import('../server/dist/main.js');

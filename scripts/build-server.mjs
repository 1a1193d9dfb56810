/** Bundles the server and its worker threads into `server/dist`, so that nothing is compiled while it runs. */
import { rmSync } from 'node:fs';
import { build } from 'esbuild';

rmSync('server/dist', { recursive: true, force: true });
await build({
  entryPoints: { main: 'server/src/main.ts', thread: 'server/src/workers/built-thread.ts' },
  outdir: 'server/dist',
  bundle: true,
  splitting: true,
  format: 'esm',
  platform: 'node',
  target: 'node20',
  sourcemap: true,
  logLevel: 'warning',
  // Packages stay where npm put them; what is ours is bundled.
  plugins: [
    {
      name: 'packages',
      setup({ onResolve }) {
        onResolve({ filter: /^[^./#]/ }, ({ path, kind }) =>
          kind === 'entry-point' || path.startsWith('@vocabula/') ? undefined : { path, external: true },
        );
      },
    },
  ],
});

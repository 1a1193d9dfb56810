/**
 * What journeys begin with: each file of them has a server of its own, on a copy of the demo's database, so that files
 * run side by side and leave nothing behind for each other.
 */
import { test as base } from '@playwright/test';
import { OwnServer } from './own-server.js';

export * from '@playwright/test';

/** The demo's database as it is before anybody has done anything. */
export const DEMO_DATABASE = 'test-results/demo.db';
/** Where the servers of files listen: one port for each that runs at a time. */
const FIRST_PORT = 4200;

/** The server of the file that runs now. */
class Servers {
  private file = '';
  private server: OwnServer | undefined;

  constructor(private readonly port: number) {}

  async of(file: string): Promise<string> {
    if (this.server && this.file === file) return this.server.url;
    await this.server?.end();
    this.server = new OwnServer(this.port, { from: DEMO_DATABASE, environment: { CHECK_ANSWERS: 'yes' } });
    this.file = file;
    await this.server.start();
    return this.server.url;
  }

  end(): Promise<void> | undefined {
    return this.server?.end();
  }
}

export const test = base.extend<object, { readonly servers: Servers }>({
  servers: [
    // Playwright reads what a fixture needs from this pattern.
    async ({}, use, { parallelIndex }) => {
      const servers = new Servers(FIRST_PORT + parallelIndex);
      await use(servers);
      await servers.end();
    },
    { scope: 'worker' },
  ],
  baseURL: async ({ servers }, use, { file }) => use(await servers.of(file)),
});

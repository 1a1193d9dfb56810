/** Ports of this machine, for servers that run for a test. */
import { once } from 'node:events';
import { connect, createServer, type AddressInfo } from 'node:net';

/** Waits, in milliseconds. */
export const wait = (ms: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, ms));

/** A port that nobody listens on. */
export async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  server.close();
  await once(server, 'close');
  return port;
}

/** Whether a server greets whoever connects to a port, within half a second. */
export const answers = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1');
    socket.once('data', () => (socket.destroy(), resolve(true)));
    socket.once('error', () => resolve(false));
    socket.setTimeout(500, () => (socket.destroy(), resolve(false)));
  });

import { createServer, type Server } from 'node:http';
import { existsSync } from 'node:fs';
import { makeApp, makeSharedApp } from './app.js';
import { answerBrokenRequests } from './broken-requests.js';
import { openDatabase } from './db/open-database.js';
import { makeServices, type Services } from './services.js';
import { SharedDoor } from './sharing/shared-door.js';
import { DeviceStore } from './stores/device-store.js';

export interface ServerOptions {
  readonly dataFolder: string;
  readonly port: number;
  readonly cutterControlPort: number;
  /** Where the built pages are; null for the API alone. */
  readonly pagesFolder: string | null;
  /** Whether threads are made ready for the first plan at once; a test has no need of it. */
  readonly warmUp?: boolean;
}

export interface RunningServer {
  readonly url: string;
  readonly services: Services;
  readonly door: SharedDoor;
  readonly close: () => Promise<void>;
}

/** Opens the data folder and listens on this machine's own address, and on the one that the shop is shared on, if it is. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const db = await openDatabase(options.dataFolder);
  const services = await makeServices(db, options.cutterControlPort);
  const pages = options.pagesFolder && existsSync(options.pagesFolder) ? options.pagesFolder : null;
  const door = new SharedDoor(new DeviceStore(db), (at, address) => makeSharedApp(services, pages, at, address));
  const server = createServer(makeApp(services, pages, door).callback());
  answerBrokenRequests(server);
  const port = await listen(server, options.port);
  await door.reopen();
  // Nobody waits for it, and what goes wrong in it goes wrong again where it can be said.
  if (options.warmUp)
    void services.shop
      .forPlans()
      .then((shop) => services.compute.warmUp(shop))
      .catch(() => {});
  return {
    url: `http://127.0.0.1:${port}`,
    services,
    door,
    close: async () => {
      await services.spooler.close();
      await door.shut();
      server.closeAllConnections();
      await new Promise((done) => server.close(done));
      await services.compute.close();
      await db.destroy();
    },
  };
}

function listen(server: Server, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      resolve(typeof address === 'object' && address ? address.port : port);
    });
  });
}

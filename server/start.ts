import { createServer, type Server } from 'node:http';
import { existsSync } from 'node:fs';
import { makeApp } from './app.js';
import { openDatabase } from './db/open-database.js';
import { makeServices, type Services } from './services.js';

export interface ServerOptions {
  readonly dataFolder: string;
  readonly port: number;
  readonly cutterControlPort: number;
  /** Where the built pages are; null for the API alone. */
  readonly pagesFolder: string | null;
}

export interface RunningServer {
  readonly url: string;
  readonly services: Services;
  readonly close: () => Promise<void>;
}

/** Opens the data folder and listens, on this machine's own address only. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const db = await openDatabase(options.dataFolder);
  const services = await makeServices(db, options.cutterControlPort);
  const pages = options.pagesFolder && existsSync(options.pagesFolder) ? options.pagesFolder : null;
  const server = createServer(makeApp(services, pages).callback());
  const port = await listen(server, options.port);
  return {
    url: `http://127.0.0.1:${port}`,
    services,
    close: async () => {
      await services.spooler.close();
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

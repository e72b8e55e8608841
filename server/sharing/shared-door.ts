import { createServer, type Server } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import type { Socket } from 'node:net';
import { networkInterfaces } from 'node:os';
import type Koa from 'koa';
import { answerBrokenRequests } from '../broken-requests.js';
import { Problem } from '../problem.js';
import type { DeviceStore, Sharing } from '../stores/device-store.js';
import { limitConnections } from './limit-connections.js';
import { Pairing } from './pairing.js';

/** How a shared address is reached: what Host and Origin must say there. */
export interface SharedAddress {
  readonly host: string;
  readonly origin: string;
  readonly isSecure: boolean;
}

export type AppFor = (door: SharedDoor, address: SharedAddress) => Koa;

/**
 * The second way in, for devices in the shop's network: shut unless it was opened, on one address, with an application of its own that asks for a
 * cookie.
 */
export class SharedDoor {
  readonly pairing: Pairing;
  readonly #sockets = new Map<string, Set<Socket>>();
  #server: Server | null = null;
  #open: SharedAddress | null = null;

  constructor(
    readonly devices: DeviceStore,
    private readonly appFor: AppFor,
    now: () => number = Date.now,
  ) {
    this.pairing = new Pairing(now);
  }

  /** Where it is open; null while it is shut. */
  get address(): SharedAddress | null {
    return this.#open;
  }

  /** Opens it as it was left; one that cannot be opened any more (the network is another one) says so and stays shut. */
  async reopen(): Promise<void> {
    const sharing = await this.devices.sharing();
    if (sharing)
      await this.#listen(sharing).catch((error: unknown) =>
        console.error(`The shop is not shared: ${error instanceof Error ? error.message : String(error)}`),
      );
  }

  /** @throws Problem 422 when it cannot be opened there; what was open before stays as it was left, but shut */
  async open(sharing: Sharing): Promise<SharedAddress> {
    await this.shut();
    const address = await this.#listen(sharing);
    await this.devices.setSharing({ ...sharing, port: Number(address.host.slice(address.host.lastIndexOf(':') + 1)) });
    return address;
  }

  /** Shuts it for good, until it is opened again. */
  async close(): Promise<void> {
    await this.devices.setSharing(null);
    await this.shut();
  }

  /** Stops listening, and hangs up on whoever is there. */
  async shut(): Promise<void> {
    const server = this.#server;
    this.#server = null;
    this.#open = null;
    if (!server) return;
    server.closeAllConnections();
    await new Promise((done) => server.close(done));
  }

  /** Remembers on which lines a device speaks, so that it can be hung up on. */
  speaks(deviceId: string, socket: Socket): void {
    const sockets = this.#sockets.get(deviceId) ?? new Set();
    this.#sockets.set(deviceId, sockets);
    if (sockets.has(socket)) return;
    sockets.add(socket);
    socket.once('close', () => sockets.delete(socket));
  }

  /** A device is not let in any more, and hung up on at once. @throws Problem 404 */
  async sendAway(deviceId: string): Promise<void> {
    await this.devices.sendAway(deviceId);
    for (const socket of this.#sockets.get(deviceId) ?? []) socket.destroy();
    this.#sockets.delete(deviceId);
  }

  async #listen({ address, port, certificate, privateKey }: Sharing): Promise<SharedAddress> {
    const isSecure = certificate !== null && privateKey !== null;
    // What it answers with is known once it is known where it listens.
    let handle: ReturnType<Koa['callback']> | null = null;
    const listener: ReturnType<Koa['callback']> = (request, response) => handle!(request, response);
    let server: Server;
    try {
      server = isSecure
        ? (createSecureServer(
            { cert: certificate, key: privateKey },
            listener as Parameters<typeof createSecureServer>[1],
          ) as unknown as Server)
        : createServer(listener);
    } catch {
      throw new Problem(
        422,
        'certificate-wrong',
        'This certificate and key cannot be used. Both must be PEM files, and the key must be the certificate’s own, without a password.',
        'certificate',
      );
    }
    answerBrokenRequests(server);
    limitConnections(server);
    await new Promise<void>((resolve, reject) => {
      server.once('error', (error: NodeJS.ErrnoException) =>
        reject(new Problem(422, 'address-wrong', sayWhyNot(error, address, port), 'address')),
      );
      server.listen(port, address, () => resolve());
    });
    const bound = server.address();
    const at = typeof bound === 'object' && bound ? bound.port : port;
    const host = `${address.includes(':') ? `[${address}]` : address}:${at}`;
    const shared: SharedAddress = { host, origin: `${isSecure ? 'https' : 'http'}://${host}`, isSecure };
    handle = this.appFor(this, shared).callback();
    this.#server = server;
    this.#open = shared;
    return shared;
  }
}

function sayWhyNot({ code }: NodeJS.ErrnoException, address: string, port: number): string {
  if (code === 'EADDRNOTAVAIL') return `This computer has not the address ${address} now. Choose one of its own.`;
  if (code === 'EADDRINUSE') return `Port ${port} is taken on ${address}. Choose another one.`;
  if (code === 'EACCES') return `Port ${port} may not be used by this program. Choose one above 1024.`;
  return `It cannot be shared on ${address}, port ${port}. Choose another address or port.`;
}

/** Addresses of this computer in a network, by which a phone reaches it. */
export function ownAddresses(): string[] {
  return Object.values(networkInterfaces()).flatMap((list) =>
    (list ?? []).filter(({ internal, family }) => !internal && family === 'IPv4').map(({ address }) => address),
  );
}

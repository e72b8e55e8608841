import type { Server } from 'node:http';
import type { Socket } from 'node:net';

/** What one address may have open at once: a page opens six lines, and three pages are looked at. */
export const MOST_CONNECTIONS = 24;
/** Headers must be there by then, and a whole request with its body: 64 MB in a slow workshop network take a minute. */
const HEADERS_MS = 10_000;
const REQUEST_MS = 120_000;
/** A line on which nothing is asked is hung up. */
const KEEP_ALIVE_MS = 15_000;
const MOST_HEADERS = 60;

/** Nobody in the network can hold the shop up with many lines, endless headers or bodies that trickle in. */
export function limitConnections(server: Server): void {
  server.headersTimeout = HEADERS_MS;
  server.requestTimeout = REQUEST_MS;
  server.keepAliveTimeout = KEEP_ALIVE_MS;
  server.maxHeadersCount = MOST_HEADERS;
  const open = new Map<string, number>();
  server.on('connection', (socket: Socket) => {
    const from = socket.remoteAddress ?? 'unknown';
    const count = (open.get(from) ?? 0) + 1;
    open.set(from, count);
    socket.once('close', () => {
      const left = open.get(from)! - 1;
      if (left === 0) open.delete(from);
      else open.set(from, left);
    });
    if (count > MOST_CONNECTIONS) socket.destroy();
  });
}

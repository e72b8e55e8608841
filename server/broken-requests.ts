import type { Server } from 'node:http';
import type { Socket } from 'node:net';

const BODY = JSON.stringify({
  type: 'about:blank',
  status: 400,
  code: 'request-invalid',
  title: 'This is no request that can be read.',
});
const ANSWER = `HTTP/1.1 400 Bad Request\r\nContent-Type: application/problem+json\r\nContent-Length: ${Buffer.byteLength(BODY)}\r\nConnection: close\r\n\r\n${BODY}`;

/** What is no HTTP never comes as far as a route; it is answered like every other refusal. */
export function answerBrokenRequests(server: Server): void {
  server.on('clientError', (error: NodeJS.ErrnoException, socket: Socket) => {
    if (error.code === 'ECONNRESET' || !socket.writable) socket.destroy();
    else socket.end(ANSWER);
  });
}

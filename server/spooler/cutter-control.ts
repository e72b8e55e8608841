import { connect } from 'node:net';
import { Problem } from '../problem.js';

/** Asks the simulated cutter's control port one thing. A real cutter has none; then this is refused. */
export function askCutterControl(host: string, port: number, request: object): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    let text = '';
    socket.setEncoding('utf8');
    socket.setTimeout(3000, () => socket.destroy(new Error('no answer')));
    socket.on('connect', () => socket.write(JSON.stringify(request) + '\n'));
    socket.on('data', (part: string) => {
      text += part;
      if (!text.includes('\n')) return;
      socket.end();
      resolve(JSON.parse(text));
    });
    socket.on('error', () => reject(new Problem(503, 'cutter-unreachable', 'The cutter’s control port does not answer.')));
  });
}

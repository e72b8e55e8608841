import { connect } from 'node:net';
import { Problem } from '../problem.js';

const ANSWER_MS = 3000;

/** Asks the simulated cutter's control port one thing; gives its answer. A real cutter has none. @throws Problem 503 when nothing answers, 502 when the answer is none */
export function askCutterControl(host: string, port: number, request: object): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host, port });
    let text = '';
    const silent = () => reject(new Problem(503, 'cutter-unreachable', 'The cutter’s control port does not answer.'));
    socket.setEncoding('utf8');
    socket.setTimeout(ANSWER_MS, () => socket.destroy(new Error('no answer')));
    socket.on('connect', () => socket.write(JSON.stringify(request) + '\n'));
    socket.on('data', (part: string) => {
      text += part;
      const end = text.indexOf('\n');
      if (end < 0) return;
      socket.end();
      try {
        resolve(JSON.parse(text.slice(0, end)));
      } catch {
        reject(new Problem(502, 'cutter-answer', 'The cutter’s control port gave an answer that cannot be read.'));
      }
    });
    socket.on('error', silent);
    // Also when it was closed before it answered; after an answer this changes nothing.
    socket.on('close', silent);
  });
}

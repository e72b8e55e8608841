import { connect, type Socket } from 'node:net';
import { UNITS_PER_MM } from '../../core/engines/cutting/index.js';
import type { CutterReport } from './cut-state.js';

/** The cutter does not answer: not there, or the cable is out. */
export class CutterUnreachable extends Error {
  constructor(cause?: unknown) {
    super('The cutter does not answer.', { cause });
    this.name = 'CutterUnreachable';
  }
}

const ANSWER_MS = 3000;

/** What a cutter answers or obeys at once, ahead of its buffer (docs/cutter.md). */
export const REQUESTS = {
  report: '\x1b.S',
  hold: '\x1b.H',
  release: '\x1b.G',
  drop: '\x1b.K',
  'new-sheet': '\x1b.N',
} as const;

const STATES: readonly string[] = [
  'idle',
  'moving',
  'held',
  'out-of-film',
  'jammed',
] satisfies readonly CutterReport['state'][];

/** A cutter’s report from its line; null when it is none. */
export function parseReport(line: string): CutterReport | null {
  const [mark, state = '', ...rest] = line.trim().split(' ');
  const numbers = rest.map(Number);
  if (mark !== 'S' || !STATES.includes(state) || numbers.length !== 8 || !numbers.every(Number.isSafeInteger))
    return null;
  const [empty, freeBytes, pairsDone, boot, x, y, down, meterMs] = numbers as [
    number,
    number,
    number,
    number,
    number,
    number,
    number,
    number,
  ];
  return {
    state: state as CutterReport['state'],
    empty: empty === 1,
    freeBytes,
    pairsDone,
    boot,
    xMm: x / UNITS_PER_MM,
    yMm: y / UNITS_PER_MM,
    knifeDown: down === 1,
    meterMs,
  };
}

/** A connection to a cutter: sends HP-GL and asks for its report. Never has more on the wire than the cutter has room for, so requests are not queued behind cuts. */
export class CutterLink {
  #text = '';
  #waiting: { resolve: (line: string) => void; reject: (error: Error) => void } | null = null;
  #broken: Error | null = null;

  private constructor(private readonly socket: Socket) {
    socket.setEncoding('latin1');
    socket.setNoDelay(true);
    socket.on('data', (text: string) => {
      this.#text += text;
      for (let end = this.#text.indexOf('\n'); end >= 0; end = this.#text.indexOf('\n')) {
        const line = this.#text.slice(0, end).trim();
        this.#text = this.#text.slice(end + 1);
        this.#waiting?.resolve(line);
        this.#waiting = null;
      }
    });
    const fail = (cause?: unknown) => {
      this.#broken = new CutterUnreachable(cause);
      this.#waiting?.reject(this.#broken);
      this.#waiting = null;
    };
    socket.on('error', fail);
    socket.on('close', () => fail());
  }

  /** @throws CutterUnreachable */
  static open(host: string, port: number): Promise<CutterLink> {
    return new Promise((resolve, reject) => {
      const socket = connect({ host, port });
      const giveUp = setTimeout(() => socket.destroy(new Error('no answer in time')), ANSWER_MS);
      socket.once('connect', () => {
        clearTimeout(giveUp);
        resolve(new CutterLink(socket));
      });
      socket.once('error', (error) => {
        clearTimeout(giveUp);
        reject(new CutterUnreachable(error));
      });
    });
  }

  send(text: string): void {
    if (this.#broken) throw this.#broken;
    this.socket.write(text, 'latin1');
  }

  /** @throws CutterUnreachable, also when the answer is no report */
  async report(): Promise<CutterReport> {
    const line = await this.#ask(REQUESTS.report);
    const report = parseReport(line);
    if (!report) throw new CutterUnreachable(new Error(`The cutter answered “${line.slice(0, 80)}”.`));
    return report;
  }

  close(): void {
    this.socket.destroy();
  }

  #ask(request: string): Promise<string> {
    return new Promise((resolve, reject) => {
      if (this.#broken) {
        reject(this.#broken);
        return;
      }
      const giveUp = setTimeout(() => this.socket.destroy(new Error('no answer in time')), ANSWER_MS);
      this.#waiting = {
        resolve: (line) => {
          clearTimeout(giveUp);
          resolve(line);
        },
        reject: (error) => {
          clearTimeout(giveUp);
          reject(error);
        },
      };
      this.socket.write(request, 'latin1');
    });
  }
}

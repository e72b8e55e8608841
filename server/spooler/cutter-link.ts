import { connect, type Socket } from 'node:net';

/** The cutter's own report, as ESC.S answers it. */
export interface CutterReport {
  readonly state: 'idle' | 'moving' | 'held' | 'out-of-film' | 'jammed';
  readonly freeBytes: number;
  readonly pairsDone: number;
  readonly boot: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly knifeDown: boolean;
  /** The cutter's own hour meter. */
  readonly meterMs: number;
}

/** The cutter does not answer: not there, or the cable is out. */
export class CutterUnreachable extends Error {
  constructor(cause?: unknown) {
    super('The cutter does not answer.', { cause });
    this.name = 'CutterUnreachable';
  }
}

const ANSWER_MS = 3000;

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

  hold(): void {
    this.send('\x1b.H');
  }

  release(): void {
    this.send('\x1b.G');
  }

  abort(): void {
    this.send('\x1b.K');
  }

  newSheet(): void {
    this.send('\x1b.N');
  }

  /** @throws CutterUnreachable */
  async report(): Promise<CutterReport> {
    const line = await this.#ask('\x1b.S');
    const [, state, free, pairs, boot, x, y, down, meter] = line.split(' ');
    return {
      state: state as CutterReport['state'],
      freeBytes: Number(free),
      pairsDone: Number(pairs),
      boot: Number(boot),
      xMm: Number(x) / 40,
      yMm: Number(y) / 40,
      knifeDown: down === '1',
      meterMs: Number(meter),
    };
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

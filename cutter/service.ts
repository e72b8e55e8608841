import { createServer, type Server, type Socket } from 'node:net';
import { Ajv } from 'ajv';
import { CutterDevice, type DeviceOptions, type DeviceStatus } from './device.js';
import { tracePng, traceSvg } from './trace-picture.js';

export interface CutterServiceOptions extends Partial<DeviceOptions> {
  readonly port: number;
  /** Second port for what a person would do at the machine: look, hold, break it, load film. */
  readonly controlPort: number;
  readonly timeLapse: number;
}

/** What can be asked of the control port, a JSON object to a line. */
export type ControlRequest =
  | { readonly do: 'status' | 'trace' | 'picture' | 'clear' | 'power-cut' | 'new-sheet' }
  | {
      readonly do: 'fail';
      readonly how: 'out-of-film' | 'jammed' | 'slow-buffer';
      /** Film runs out or jams once so many more points are done. */ readonly afterPairs?: number;
    }
  | { readonly do: 'pull-cable'; readonly seconds: number }
  | { readonly do: 'time-lapse'; readonly factor: number };

const request = (
  what: object,
  more: Readonly<Record<string, object>> = {},
  optional: Readonly<Record<string, object>> = {},
) => ({
  type: 'object',
  additionalProperties: false,
  required: ['do', ...Object.keys(more)],
  properties: { do: what, ...more, ...optional },
});

const isRequest = new Ajv().compile<ControlRequest>({
  oneOf: [
    request({ enum: ['status', 'trace', 'picture', 'clear', 'power-cut', 'new-sheet'] }),
    request(
      { const: 'fail' },
      { how: { enum: ['out-of-film', 'jammed', 'slow-buffer'] } },
      { afterPairs: { type: 'integer', minimum: 0 } },
    ),
    request({ const: 'pull-cable' }, { seconds: { type: 'number', minimum: 0, maximum: 3600 } }),
    request({ const: 'time-lapse' }, { factor: { type: 'number', minimum: 0.1, maximum: 10_000 } }),
  ],
});

/** A request longer than this is none. */
const LONGEST_REQUEST = 4096;

/** Real time between two looks at the clock. */
const TICK_MS = 8;

/** The simulated cutter on the wire: HP-GL on one TCP port with back-pressure, a control port beside it. */
export class CutterService {
  readonly device: CutterDevice;
  readonly #options: CutterServiceOptions;
  readonly #data: Server;
  readonly #control: Server;
  #socket: Socket | null = null;
  #waiting = '';
  #timer: NodeJS.Timeout | null = null;
  #unpluggedUntil = 0;
  #timeLapse: number;

  constructor(options: CutterServiceOptions) {
    this.#options = options;
    this.#timeLapse = options.timeLapse;
    this.device = new CutterDevice(options);
    this.#data = createServer((socket) => this.#connect(socket));
    this.#control = createServer((socket) => this.#talk(socket));
  }

  async listen(): Promise<{ port: number; controlPort: number }> {
    const [port, controlPort] = [
      await listenOn(this.#data, this.#options.port),
      await listenOn(this.#control, this.#options.controlPort),
    ];
    let last = performance.now();
    this.#timer = setInterval(() => {
      const now = performance.now();
      this.device.advance(((now - last) / 1000) * this.#timeLapse);
      last = now;
      this.#feed();
    }, TICK_MS);
    return { port, controlPort };
  }

  async close(): Promise<void> {
    if (this.#timer) clearInterval(this.#timer);
    this.#socket?.destroy();
    await Promise.all([this.#data, this.#control].map((server) => new Promise((done) => server.close(done))));
  }

  /** Breaks the connection and refuses new ones for `seconds` of real time. */
  pullCable(seconds: number): void {
    this.#unpluggedUntil = performance.now() + seconds * 1000;
    this.#socket?.destroy();
  }

  #connect(socket: Socket): void {
    if (performance.now() < this.#unpluggedUntil) {
      socket.destroy();
      return;
    }
    // One cable, one host: a new connection takes the place of the old.
    this.#socket?.destroy();
    this.device.connectionLost();
    this.#socket = socket;
    this.#waiting = '';
    socket.setEncoding('latin1');
    socket.setNoDelay(true);
    socket.on('data', (text: string) => {
      if (this.#socket !== socket) return;
      this.#waiting += text;
      this.#feed();
    });
    socket.on('error', () => socket.destroy());
    socket.on('close', () => {
      if (this.#socket !== socket) return;
      this.#socket = null;
      this.#waiting = '';
      this.device.connectionLost();
    });
  }

  /** Gives the device what it has room for; the rest stays on the wire and holds the sender back. */
  #feed(): void {
    if (this.#waiting.length > 0) this.#waiting = this.#waiting.slice(this.device.receive(this.#waiting));
    const socket = this.#socket;
    if (!socket) return;
    if (this.#waiting.length > 0) socket.pause();
    else if (socket.isPaused()) socket.resume();
    const replies = this.device.takeReplies();
    if (replies) socket.write(replies);
  }

  #talk(socket: Socket): void {
    let line = '';
    socket.setEncoding('utf8');
    socket.on('error', () => socket.destroy());
    socket.on('data', (text: string) => {
      line += text;
      for (let end = line.indexOf('\n'); end >= 0; end = line.indexOf('\n')) {
        const wanted = line.slice(0, end);
        line = line.slice(end + 1);
        socket.write(JSON.stringify(this.#answer(wanted)) + '\n');
      }
      if (line.length > LONGEST_REQUEST) socket.destroy();
    });
  }

  #answer(line: string): DeviceStatus | { svg: string } | { pngBase64: string } | { error: string } {
    let asked: unknown;
    try {
      asked = JSON.parse(line);
    } catch {
      return { error: 'A request is one JSON object on a line.' };
    }
    if (!isRequest(asked))
      return {
        error: `This cutter does not understand ${line.slice(0, 80)}; what it can be asked is in docs/cutter.md.`,
      };
    switch (asked.do) {
      case 'status':
        break;
      case 'trace':
        return { svg: traceSvg(this.device.cutLines()) };
      case 'picture':
        return { pngBase64: Buffer.from(tracePng(this.device.cutLines())).toString('base64') };
      case 'clear':
        this.device.clearFault();
        this.device.bytesPerSecond = Infinity;
        break;
      case 'new-sheet':
        this.device.newSheet();
        break;
      case 'power-cut':
        this.device.powerCycle();
        this.#socket?.destroy();
        break;
      case 'fail':
        if (asked.how === 'slow-buffer') this.device.bytesPerSecond = 40;
        else this.device.fail(asked.how, asked.afterPairs);
        break;
      case 'pull-cable':
        this.pullCable(asked.seconds);
        break;
      case 'time-lapse':
        this.#timeLapse = asked.factor;
        break;
    }
    return this.device.status();
  }
}

function listenOn(server: Server, port: number): Promise<number> {
  return new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => {
      const address = server.address();
      resolve(typeof address === 'object' && address ? address.port : port);
    });
  });
}

import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync } from 'node:fs';
import { connect } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { BENCH_SHOP_FILE } from '../core/testing/bench-shop.js';
import { openDatabase } from '../server/db/open-database.js';
import { ShopStore } from '../server/stores/shop-store.js';
import { StockBook } from '../server/stores/stock-book.js';

/** A program of ours as a process of its own, started by its file and killed like a power cut would. */
export class RealProcess {
  #child: ChildProcess | null = null;

  constructor(
    private readonly file: string,
    private readonly args: readonly string[],
    private readonly ready: RegExp,
  ) {}

  get isRunning(): boolean {
    return this.#child !== null && this.#child.exitCode === null && this.#child.signalCode === null;
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, ['--import', 'tsx', this.file, ...this.args], {
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.#child = child;
    await new Promise<void>((resolve, reject) => {
      let said = '';
      child.stdout.on('data', (text: Buffer) => {
        said += text.toString();
        if (this.ready.test(said)) resolve();
      });
      child.once('exit', (code) => reject(new Error(`${this.file} ended with ${code}: ${said}`)));
    });
  }

  async kill(): Promise<void> {
    const child = this.#child;
    if (!child || !this.isRunning) return;
    const gone = new Promise((resolve) => child.once('exit', resolve));
    child.kill('SIGKILL');
    await gone;
  }
}

/** A shop in a folder of its own, its server and its cutter, each a process. */
export interface RealShop {
  readonly server: RealProcess;
  readonly cutter: RealProcess;
  readonly url: string;
  readonly api: <T>(method: string, path: string, body?: unknown) => Promise<{ status: number; body: T }>;
  readonly control: <T>(request: object) => Promise<T>;
  readonly close: () => Promise<void>;
}

export async function openRealShop(firstPort: number, timeLapse: number): Promise<RealShop> {
  const data = mkdtempSync(join(tmpdir(), 'lantern-bench-'));
  const [port, controlPort, serverPort] = [firstPort, firstPort + 1, firstPort + 2];
  const db = await openDatabase(data);
  await new ShopStore(db, new StockBook(db)).fill({
    ...BENCH_SHOP_FILE,
    cutters: BENCH_SHOP_FILE.cutters.map((one) => ({ ...one, port })),
  });
  await db.destroy();
  const cutter = new RealProcess(
    'cutter/main.ts',
    ['--port', String(port), '--control-port', String(controlPort), '--time-lapse', String(timeLapse)],
    /Simulated cutter/,
  );
  const server = new RealProcess(
    'server/main.ts',
    ['--data', data, '--port', String(serverPort), '--cutter-control-port', String(controlPort)],
    /Wry Lantern:/,
  );
  await cutter.start();
  await server.start();
  const url = `http://127.0.0.1:${serverPort}`;
  return {
    server,
    cutter,
    url,
    api: async <T>(method: string, path: string, body?: unknown) => {
      const isBytes = body instanceof Uint8Array;
      const response = await fetch(url + path, {
        method,
        ...(body === undefined
          ? {}
          : {
              body: isBytes ? (body as BodyInit) : JSON.stringify(body),
              headers: { 'Content-Type': isBytes ? 'application/octet-stream' : 'application/json' },
            }),
      });
      return { status: response.status, body: (await response.json()) as T };
    },
    control: (request) => ask(controlPort, request),
    close: async () => {
      await server.kill();
      await cutter.kill();
    },
  };
}

function ask<T>(port: number, request: object): Promise<T> {
  return new Promise((resolve, reject) => {
    const socket = connect({ host: '127.0.0.1', port });
    let text = '';
    socket.on('connect', () => socket.write(JSON.stringify(request) + '\n'));
    socket.on('data', (part: Buffer) => {
      text += part.toString();
      if (!text.includes('\n')) return;
      socket.destroy();
      resolve(JSON.parse(text) as T);
    });
    socket.on('error', reject);
  });
}

import { existsSync, mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { request, type IncomingHttpHeaders } from 'node:http';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, brotliDecompressSync, gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keepLastVersion } from '../scripts/keep-last-version.js';
import { openBench, type Bench } from './testing/bench.js';

const SCRIPT = 'export const lantern = 1;\n'.repeat(200);
const PAGE = '<!doctype html><title>Wry Lantern</title>';

let bench: Bench;
let folder: string;

beforeAll(async () => {
  folder = mkdtempSync(join(tmpdir(), 'lantern-pages-'));
  mkdirSync(join(folder, 'assets'));
  writeFileSync(join(folder, 'index.html'), PAGE);
  for (const name of ['a-1.js', 'plan-worker-1.js']) {
    writeFileSync(join(folder, 'assets', name), SCRIPT);
    writeFileSync(join(folder, 'assets', `${name}.br`), brotliCompressSync(SCRIPT));
    writeFileSync(join(folder, 'assets', `${name}.gz`), gzipSync(SCRIPT));
  }
  bench = await openBench({ pagesFolder: `${folder}/` });
});

afterAll(async () => {
  await bench.close();
  rmSync(folder, { recursive: true, force: true });
});

/** Asks without a browser’s help: what comes is what is on the wire. */
function ask(
  path: string,
  headers: Record<string, string> = {},
  method = 'GET',
): Promise<{ status: number; headers: IncomingHttpHeaders; body: Buffer }> {
  return new Promise((resolve, reject) => {
    const asking = request(bench.server.url + path, { method, headers }, (response) => {
      const parts: Buffer[] = [];
      response.on('data', (part: Buffer) => parts.push(part));
      response.on('end', () =>
        resolve({ status: response.statusCode!, headers: response.headers, body: Buffer.concat(parts) }),
      );
    });
    asking.on('error', reject);
    asking.end();
  });
}

describe('the pages', () => {
  it('come as small as the browser can read them, and plain where it can read nothing else', async () => {
    const [brotli, gzip, plain] = [
      await ask('/assets/a-1.js', { 'Accept-Encoding': 'gzip, deflate, br' }),
      await ask('/assets/a-1.js', { 'Accept-Encoding': 'gzip' }),
      await ask('/assets/a-1.js'),
    ];
    expect([
      brotli.headers['content-encoding'],
      gzip.headers['content-encoding'],
      plain.headers['content-encoding'],
    ]).toEqual(['br', 'gzip', undefined]);
    expect([brotliDecompressSync(brotli.body), gunzipSync(gzip.body), plain.body].map(String)).toEqual([
      SCRIPT,
      SCRIPT,
      SCRIPT,
    ]);
    expect(brotli.headers).toMatchObject({
      'content-type': expect.stringMatching(/javascript/) as string,
      vary: 'Accept-Encoding',
      'cache-control': 'public, max-age=31536000, immutable',
    });
  });

  it('are not sent again to who has them', async () => {
    const first = await ask('/');
    expect(first.headers).toMatchObject({ 'cache-control': 'no-cache', 'x-content-type-options': 'nosniff' });
    expect(String(first.body)).toBe(PAGE);
    const again = await ask('/', { 'If-None-Match': first.headers.etag! });
    expect([again.status, again.body.length]).toEqual([304, 0]);
    expect((await ask('/', { 'If-None-Match': 'W/"0-0"' })).status).toBe(200);
  });

  it('know their own addresses; a file that is not there is not there, and an address that cannot be read is answered by the application', async () => {
    expect(String((await ask('/jobs/1/build')).body)).toBe(PAGE);
    expect((await ask('/jobs/1/build', {}, 'HEAD')).status).toBe(200);
    for (const path of [
      '/nope.js',
      '/assets/gone-1.js',
      '/assets/../../package.json',
      '/..%2f..%2fpackage.json',
      '/api/nope',
    ])
      expect([path, (await ask(path)).status]).toEqual([path, 404]);
    for (const path of ['/%E0%A4%A', '/%', '/jobs/%FF'])
      expect([path, String((await ask(path)).body)]).toEqual([path, PAGE]);
    expect((await ask('/', {}, 'POST')).status).toBe(404);
  });

  it('lets the planning worker alone write code', async () => {
    expect((await ask('/assets/plan-worker-1.js')).headers['content-security-policy']).toContain('unsafe-eval');
    expect((await ask('/assets/a-1.js')).headers['content-security-policy']).not.toContain('unsafe-eval');
  });
});

describe('a new version of the pages', () => {
  it('leaves those of the last one where an open page finds them, and no older ones', () => {
    const out = mkdtempSync(join(tmpdir(), 'lantern-build-'));
    mkdirSync(join(out, 'assets'));
    const { writeBundle } = keepLastVersion(out) as unknown as {
      writeBundle: { handler: (options: object, bundle: Record<string, object>) => void };
    };
    const build = (...names: string[]) => {
      for (const name of names)
        for (const ending of ['', '.br', '.gz']) writeFileSync(join(out, 'assets', name + ending), name);
      writeBundle.handler(
        {},
        Object.fromEntries(
          names.flatMap((name) => [
            [`assets/${name}`, {}],
            [`assets/${name}.br`, {}],
          ]),
        ),
      );
    };
    const has = (name: string) =>
      existsSync(join(out, 'assets', name)) && existsSync(join(out, 'assets', `${name}.br`));
    build('a-1.js', 'same.js');
    build('a-2.js', 'same.js');
    expect(['a-1.js', 'a-2.js', 'same.js'].map(has)).toEqual([true, true, true]);
    // The same built again pushes nothing out.
    build('a-2.js', 'same.js');
    expect(has('a-1.js')).toBe(true);
    build('a-3.js', 'same.js');
    expect(['a-1.js', 'a-2.js', 'a-3.js', 'same.js'].map(has)).toEqual([false, true, true, true]);
    rmSync(out, { recursive: true, force: true });
  });
});

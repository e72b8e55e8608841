import { MOST_CONNECTIONS } from './sharing/limit-connections.js';
import { connect } from 'node:net';
import { readFileSync } from 'node:fs';
import { request as httpRequest, type IncomingHttpHeaders } from 'node:http';
import { request as httpsRequest } from 'node:https';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import type { ShopFile } from '../core/shop/index.js';
import { apiRoutes } from './app.js';
import { shareWishOf, withShareValue } from './share-wish.js';
import { CODE_LIVES_MS, Pairing } from './sharing/pairing.js';
import { jobWith, openBench, type Bench } from './testing/bench.js';

/* A second loopback address stands for the shop's network. */
const ADDRESS = '127.0.0.2';

let bench: Bench;
let host: string;
let port: number;
beforeAll(async () => {
  bench = await openBench();
  ({ host } = await bench.server.door.open({ address: ADDRESS, port: 0, certificate: null, privateKey: null }));
  port = Number(host.split(':')[1]);
});
afterAll(() => bench.close());

interface Sent {
  readonly method?: string;
  readonly path?: string;
  readonly headers?: Readonly<Record<string, string | string[]>>;
  readonly body?: string | Buffer;
  /** Nothing is added to what is said. */
  readonly bare?: boolean;
}

interface Answered {
  readonly status: number;
  readonly headers: IncomingHttpHeaders;
  readonly text: string;
}

/** A request as it stands: a browser's own would put things right. */
function send(
  { method = 'GET', path = '/', headers = {}, body, bare = false }: Sent,
  at = { address: ADDRESS, port },
): Promise<Answered> {
  return new Promise((resolve, reject) => {
    const added = bare
      ? {}
      : {
          Host: host,
          ...(method === 'GET' || method === 'HEAD'
            ? {}
            : {
                Origin: `http://${host}`,
                ...(body === undefined
                  ? {}
                  : { 'Content-Type': 'application/json', 'Content-Length': String(Buffer.byteLength(body)) }),
              }),
        };
    const request = httpRequest(
      {
        host: at.address,
        port: at.port,
        method,
        path,
        headers: { ...added, ...headers },
        setHost: false,
        agent: false,
      },
      (response) => {
        const parts: Buffer[] = [];
        response.on('data', (part: Buffer) => parts.push(part));
        response.on('end', () =>
          resolve({ status: response.statusCode!, headers: response.headers, text: Buffer.concat(parts).toString() }),
        );
        response.on('error', reject);
      },
    );
    request.on('error', reject);
    request.end(body);
  });
}

/** Lets a device in, as a phone does that scanned the code. */
async function letIn(name = 'Phone'): Promise<{ cookie: string; id: string }> {
  const { body } = await bench.api<{ url: string }>('POST', '/api/devices/code', {});
  const entered = await send({
    method: 'POST',
    path: '/api/devices/enter',
    body: JSON.stringify({ code: body.url.split('#')[1], name }),
  });
  expect(entered.status).toBe(200);
  const [cookie] = entered.headers['set-cookie']!;
  expect(cookie).toMatch(/^lantern-device=[\w-]{43}; Path=\/; HttpOnly; SameSite=Strict; Max-Age=\d+$/);
  const { devices } = (await bench.api<{ devices: { id: string; name: string }[] }>('GET', '/api/devices')).body;
  return { cookie: cookie!.split(';')[0]!, id: devices.find((device) => device.name === name)!.id };
}

describe('a device', () => {
  it('is let in by a code once, may look and work at the bench, and changes nothing else', async () => {
    const { cookie } = await letIn('Bench phone');
    const as = (sent: Sent) => send({ ...sent, headers: { ...sent.headers, Cookie: cookie } });
    const job = await jobWith(
      bench,
      '<svg xmlns="http://www.w3.org/2000/svg" width="60mm" height="60mm" viewBox="0 0 60 60"><rect width="60" height="60" fill="#16181a"/></svg>',
    );
    expect(JSON.parse((await as({ path: '/api/asker' })).text)).toEqual({ device: 'Bench phone' });
    expect(JSON.parse((await as({ path: `/api/jobs/${job.id}` })).text)).toMatchObject({ id: job.id });
    const shop = JSON.parse((await as({ path: '/api/shop' })).text) as ShopFile & { revision: number };
    expect(
      (
        await as({
          method: 'POST',
          path: '/api/shop/pieces/tar-roll/lines',
          body: JSON.stringify({ act: 'used', figure: 100, note: '', revision: shop.revision }),
        })
      ).status,
    ).toBe(200);
    const recipe = await as({
      method: 'PUT',
      path: `/api/jobs/${job.id}/recipe`,
      body: JSON.stringify({ recipe: { ...job.recipe, title: 'Mine' }, revision: job.revision }),
    });
    expect([recipe.status, (JSON.parse(recipe.text) as { code: string }).code]).toEqual([403, 'bench-only']);
    expect((await as({ path: '/api/devices' })).status).toBe(403);
  });

  it('is sent away at once: its next request, and the line it is listening on', async () => {
    const { cookie, id } = await letIn('Lost phone');
    const listening = new Promise<string>((resolve) => {
      const request = httpRequest(
        {
          host: ADDRESS,
          port,
          path: '/api/changes',
          headers: { Host: host, Cookie: cookie },
          setHost: false,
          agent: false,
        },
        (response) => {
          response.on('data', () => {});
          response.on('close', () => resolve('hung up on'));
          void bench.api('DELETE', `/api/devices/${id}`);
        },
      );
      request.on('error', () => resolve('hung up on'));
      request.end();
    });
    expect(await listening).toBe('hung up on');
    expect((await send({ path: '/api/jobs', headers: { Cookie: cookie } })).status).toBe(401);
  });

  it('stays let in over a restart, and the shop stays shared', async () => {
    const { cookie } = await letIn('Old phone');
    await bench.restartServer();
    expect((await send({ path: '/api/health', headers: { Cookie: cookie } })).status).toBe(200);
  });

  it('needs no cookie for the page alone, and gets nothing else without', async () => {
    for (const path of [
      '/api/jobs',
      '/api/shop',
      '/api/health',
      '/api/openapi.json',
      '/api/changes',
      '/API/jobs',
      '//api/jobs',
      '/%61pi/jobs',
    ])
      expect([path, (await send({ path })).status]).toEqual([path, 401]);
    expect((await send({ path: '/let-in' })).status).toBe(404);
  });
});

describe('a code', () => {
  const codes = () => {
    let now = 0;
    const pairing = new Pairing(() => now);
    const tryCode = (code: string, from = '10.0.0.7') => {
      try {
        pairing.take(code, from);
        return 'in';
      } catch (error) {
        return (error as { code: string }).code;
      }
    };
    return { pairing, tryCode, pass: (ms: number) => (now += ms) };
  };

  it('is good once, for two minutes, and void when there is a newer one', () => {
    const { pairing, tryCode, pass } = codes();
    const first = pairing.make().code;
    const second = pairing.make().code;
    expect(tryCode(first)).toBe('code-wrong');
    pass(1000);
    expect(tryCode(second)).toBe('in');
    expect(tryCode(second)).toBe('code-wrong');
    pass(60_000);
    const { code } = pairing.make();
    pass(CODE_LIVES_MS);
    expect(tryCode(code)).toBe('code-wrong');
  });

  it('that is guessed makes that address wait, longer each time, and nobody else; the code that is shown stays good', () => {
    const { pairing, tryCode, pass } = codes();
    const { code } = pairing.make();
    for (const wait of [1000, 2000, 4000, 8000, 16_000, 32_000]) {
      expect(tryCode('wrong')).toBe('code-wrong');
      pass(wait - 1);
      expect(tryCode(code)).toBe('too-many-codes');
      pass(1);
    }
    for (let n = 0; n < 3000; n += 1) expect(tryCode('wrong', `10.1.${n >> 8}.${n & 255}`)).toBe('code-wrong');
    expect(tryCode('wrong')).toBe('code-wrong');
    expect([tryCode(code), tryCode(code, '10.0.0.8')]).toEqual(['too-many-codes', 'in']);
  });

  it('has nothing in common with the next', () => {
    const { pairing } = codes();
    expect(new Set(Array.from({ length: 500 }, () => pairing.make().code)).size).toBe(500);
    expect(pairing.make().code).toMatch(/^[0-9a-f]{20}$/);
  });

  it('what a device may do is what docs/shop.md says, route by route', () => {
    const page = readFileSync('docs/shop.md', 'utf8');
    const listed = [...page.matchAll(/^\| `(POST|PUT|PATCH|DELETE) (\/api\/\S+)` \|/gm)].map(
      ([, how, path]) => `${how} ${path}`,
    );
    const { services, door } = bench.server;
    const allowed = apiRoutes(services, door)
      .filter(({ method, isBench }) => method !== 'get' && isBench)
      .map(({ method, path }) => `${method.toUpperCase()} ${path}`);
    expect(listed.sort()).toEqual(allowed.sort());
    const hidden = apiRoutes(services, door).filter(({ isPrivate }) => isPrivate);
    expect(hidden.map(({ path }) => path)).toEqual(['/api/devices']);
  });

  it('many lines, endless headers and bodies that trickle in hold nobody up', async () => {
    const { host, port } = new URL(bench.server.door.address!.origin.replace('localhost', '127.0.0.1'));
    const name = host.split(':')[0]!;
    const lines = await Promise.all(
      Array.from({ length: MOST_CONNECTIONS + 10 }, () => {
        const socket = connect(Number(port), name);
        return new Promise<{ socket: typeof socket; isOpen: boolean }>((resolve) => {
          socket.on('error', () => {});
          socket.once('close', () => resolve({ socket, isOpen: false }));
          // Those that are let stay are asked for the page, and answer.
          socket.once('data', () => resolve({ socket, isOpen: true }));
          socket.write(`GET / HTTP/1.1\r\nHost: ${host}\r\n\r\n`);
        });
      }),
    );
    const open = lines.filter(({ isOpen }) => isOpen).length;
    expect(open).toBeGreaterThan(0);
    expect(open).toBeLessThanOrEqual(MOST_CONNECTIONS);
    for (const { socket } of lines) socket.destroy();
    // The bench computer's own address is not counted with them.
    expect((await bench.api('GET', '/api/health')).status).toBe(200);
  });

  it('a body that breaks off leaves no stack behind', async () => {
    const said = vi.spyOn(console, 'error').mockImplementation(() => {});
    const { port } = new URL(bench.server.url);
    const left = new Promise<void>((resolve) => {
      const socket = connect(Number(port), '127.0.0.1', () => {
        socket.write(
          `POST /api/jobs HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Type: application/json\r\nContent-Length: 5000\r\n\r\n{"title":`,
          () => socket.destroy(),
        );
      });
      socket.once('close', () => resolve());
    });
    await left;
    // Two answers later it was seen to.
    for (let n = 0; n < 2; n += 1) await bench.api('GET', '/api/health');
    expect(
      said.mock.calls
        .flat()
        .map(String)
        .filter((line) => /aborted|ECONNRESET|at /.test(line)),
    ).toEqual([]);
    said.mockRestore();
  });

  it('that is wrong is written down, with where it came from', async () => {
    const entered = await send({
      method: 'POST',
      path: '/api/devices/enter',
      body: JSON.stringify({ code: 'guess', name: 'x' }),
    });
    expect([403, 429]).toContain(entered.status);
    const { knocks } = (await bench.api<{ knocks: { from: string; what: string }[] }>('GET', '/api/devices')).body;
    expect(knocks[0]).toMatchObject({
      from: expect.stringContaining('127.') as string,
      what: expect.stringContaining('wrong code') as string,
    });
  });
});

describe('sharing', () => {
  it('is off until it is switched on, and off again when it is switched off', async () => {
    const other = await openBench();
    try {
      expect(other.server.door.address).toBeNull();
      expect((await other.api<{ code: string }>('POST', '/api/devices/code', {})).body.code).toBe('not-shared');
      const shared = (
        await other.api<{ open: { url: string } }>('PUT', '/api/devices/sharing', {
          address: ADDRESS,
          port: 0,
          certificate: null,
          privateKey: null,
        })
      ).body;
      expect(shared.open.url).toMatch(/^http:\/\/127\.0\.0\.2:\d+$/);
      await other.api('PUT', '/api/devices/sharing', { address: null, port: 0, certificate: null, privateKey: null });
      await expect(fetch(shared.open.url)).rejects.toThrow();
      await other.restartServer();
      expect(other.server.door.address).toBeNull();
    } finally {
      await other.close();
    }
  });

  it.each([
    ['an address that is none', { address: 'everywhere', port: 1 }, 400],
    ['an address of another computer', { address: '192.0.2.7', port: 0 }, 422],
    ['a certificate that is none', { address: ADDRESS, port: 0, certificate: 'no', privateKey: 'no' }, 422],
  ])('on %s is refused with a sentence', async (_, wish, status) => {
    const other = await openBench();
    const refused = await other.api<{ title: string }>('PUT', '/api/devices/sharing', {
      certificate: null,
      privateKey: null,
      ...wish,
    });
    await other.close();
    expect([refused.status, refused.body.title.length > 20]).toEqual([status, true]);
  });

  it('works over HTTPS with a certificate of the maker’s own', async () => {
    // Made for this address, and for nothing else.
    const [certificate, privateKey] = ['https-cert.pem', 'https-key.pem'].map((file) =>
      readFileSync(new URL(`testing/${file}`, import.meta.url), 'utf8'),
    );
    const other = await openBench();
    try {
      const { body } = await other.api<{ open: { url: string; isSecure: boolean } }>('PUT', '/api/devices/sharing', {
        address: ADDRESS,
        port: 0,
        certificate,
        privateKey,
      });
      expect([body.open.isSecure, body.open.url.startsWith('https://')]).toEqual([true, true]);
      const at = new URL(body.open.url);
      const { body: made } = await other.api<{ url: string }>('POST', '/api/devices/code', {});
      const json = JSON.stringify({ code: made.url.split('#')[1], name: 'Phone' });
      const cookie = await new Promise<string>((resolve, reject) => {
        const request = httpsRequest(
          {
            host: ADDRESS,
            port: at.port,
            path: '/api/devices/enter',
            method: 'POST',
            ca: certificate,
            headers: {
              Origin: at.origin,
              'Content-Type': 'application/json',
              'Content-Length': Buffer.byteLength(json),
            },
          },
          (response) => resolve(response.headers['set-cookie']?.[0] ?? ''),
        );
        request.on('error', reject);
        request.end(json);
      });
      expect(cookie).toMatch(/HttpOnly; SameSite=Strict; .*Secure$/);
    } finally {
      await other.close();
    }
  });

  it('is asked for on the command line', () => {
    expect(withShareValue(['--share', '--port', '1'])).toEqual(['--share', 'auto', '--port', '1']);
    expect(withShareValue(['--share', '10.0.0.4'])).toEqual(['--share', '10.0.0.4']);
    expect([shareWishOf('auto', ['10.0.0.4']), shareWishOf('10.0.0.5:99', []), shareWishOf('[::1]:5', [])]).toEqual([
      { address: '10.0.0.4', port: 4311 },
      { address: '10.0.0.5', port: 99 },
      { address: '::1', port: 5 },
    ]);
    for (const wish of ['here', '10.0.0.5:70000']) expect(() => shareWishOf(wish, [])).toThrow('is no address');
    expect(() => shareWishOf('auto', [])).toThrow('no address in a network');
  });
});

describe('on a shared address', () => {
  it('no route changes anything without a cookie, nor does one of the shop’s settings with one', async () => {
    const { cookie } = await letIn('Curious phone');
    const before = JSON.stringify([
      (await bench.api('GET', '/api/shop')).body,
      (await bench.api('GET', '/api/jobs')).body,
    ]);
    const routes = apiRoutes(bench.server.services, bench.server.door).filter(({ method }) => method !== 'get');
    expect(routes.length).toBeGreaterThan(25);
    for (const { method, path, isBench } of routes) {
      const sent = { method: method.toUpperCase(), path: path.replace(/:(\w+)/g, 'tar-roll'), body: '{}' };
      expect([path, (await send(sent)).status]).toEqual([path, 401]);
      if (!isBench) expect([path, (await send({ ...sent, headers: { Cookie: cookie } })).status]).toEqual([path, 403]);
    }
    expect(
      JSON.stringify([(await bench.api('GET', '/api/shop')).body, (await bench.api('GET', '/api/jobs')).body]),
    ).toBe(before);
  });
});

/* What a hostile page, program or person sends. `in` is sent with the cookie of a device that is let in, which does not help. */
const post = (path: string, more: Sent = {}): Sent => ({ method: 'POST', path, body: '{}', ...more });
const BOOK = '/api/shop/pieces/tar-roll/lines';
const hostile = (): readonly (readonly [group: string, name: string, sent: Sent, isIn: boolean])[] => [
  ...[
    'localhost',
    '127.0.0.1',
    `127.0.0.1:${port}`,
    'evil.example',
    `evil.example:${port}`,
    `${ADDRESS}`,
    `${ADDRESS}:1`,
    `${ADDRESS}.evil.example:${port}`,
    `evil.example#${host}`,
    `${host}.`,
    `user@${host}`,
    ` ${host}x`,
    '[::1]',
    '0.0.0.0',
    `127.2:${port}`,
    `0x7f.0.0.2:${port}`,
  ].map((name) => ['host', name, { path: '/api/shop', bare: true, headers: { Host: name } }, true] as const),
  ...[
    'http://evil.example',
    'null',
    'https://127.0.0.2',
    `https://${ADDRESS}`,
    `http://${ADDRESS}`,
    'http://127.0.0.1:4310',
    'file://',
    `http://${ADDRESS}:1`,
    'http://localhost',
    'chrome-extension://abc',
    'data:',
    `http://user@${ADDRESS}`,
    '',
  ].map((origin) => ['origin', origin || 'none', post(BOOK, { headers: { Origin: origin } }), true] as const),
  ...['cross-site'].flatMap(
    (site) =>
      [
        ['origin', `fetched from ${site}`, { path: '/api/shop', headers: { 'Sec-Fetch-Site': site } }, true],
        ['origin', `posted from ${site}`, post(BOOK, { headers: { 'Sec-Fetch-Site': site } }), true],
      ] as const,
  ),
  ...[
    '',
    'lantern-device=',
    'lantern-device=x',
    `lantern-device=${'a'.repeat(43)}`,
    `lantern-device=${'a'.repeat(5000)}`,
    'lantern-device',
    'device=1',
    'lantern-device=../../etc',
    "lantern-device=' or 1=1 --",
    'lantern-device=%00',
    'lantern-device=null',
    'LANTERN-DEVICE=x',
    'lantern-device=a; lantern-device=b',
    'x=lantern-device=a',
    'lantern-device="a"',
  ].map(
    (cookie) =>
      ['cookie', cookie.slice(0, 40) || 'none', { path: '/api/shop', headers: { Cookie: cookie } }, false] as const,
  ),
  ...['', 'lantern-device=x', 'lantern-device=a; lantern-device=b'].map(
    (cookie) =>
      ['cookie', `posted with ${cookie || 'none'}`, post(BOOK, { headers: { Cookie: cookie } }), false] as const,
  ),
  ...[
    { code: '', name: 'x' },
    { code: 'x' },
    { name: 'x' },
    {},
    { code: 1, name: 'x' },
    { code: null, name: 'x' },
    { code: ['a'], name: 'x' },
    { code: 'a', name: '' },
    { code: 'a', name: 'x'.repeat(61) },
    { code: 'a'.repeat(101), name: 'x' },
    { code: 'a', name: 'x', admin: true },
    { code: '0'.repeat(20), name: 'x' },
    { code: "' or ''='", name: 'x' },
    { code: '%00', name: 'x' },
    'text',
    [],
    7,
  ].map(
    (body) =>
      [
        'code',
        JSON.stringify(body).slice(0, 40),
        post('/api/devices/enter', { body: JSON.stringify(body) }),
        false,
      ] as const,
  ),
  ...['OPTIONS', 'TRACE', 'PROPFIND', 'MKCOL', 'LOCK', 'PURGE', 'SEARCH', 'REPORT'].flatMap(
    (method) =>
      [
        ['method', `${method} /api/shop`, { method, path: '/api/shop' }, true],
        ['method', `${method} /`, { method, path: '/' }, true],
      ] as const,
  ),
  ...['DELETE', 'PUT', 'PATCH', 'POST'].map(
    (method) => ['method', `${method} /api/shop`, { method, path: '/api/shop', body: '{}' }, true] as const,
  ),
  ...[
    '/api/../api/shop/changes',
    '/api/devices/sharing',
    '/api/devices/code',
    '/api/shop/undo',
    '/api/shop/redo',
    '/api/shop/changes',
    '/api/cutter/control',
    '/api/jobs',
    '/api/fonts?fileName=a',
    '/api/shop/pictures?fileName=a',
    '/api/shop/films.csv',
    '/API/shop/changes',
    '//api/shop/changes',
    '/api//shop/changes',
    '/api/shop/changes/',
    '/%61pi/shop/changes',
    '/api/shop/..;/changes',
    '/api/shop/changes%00',
    '/api/%',
    '/api/shop/pieces/../../jobs',
  ].map((path) => ['path', path, post(path), true] as const),
  ...[
    '/../../etc/passwd',
    '/..%2f..%2fetc%2fpasswd',
    '/%2e%2e/%2e%2e/package.json',
    '/data/lantern.sqlite',
    '/.git/config',
    '/assets/../../package.json',
    '/assets/%2e%2e%2f%2e%2e%2fpackage.json',
    '/\\..\\..\\package.json',
    '/%',
    '/api/artworks/../../../package.json',
    '/api/shop/pictures/..%2f..%2fpackage.json',
    '/nowhere.php',
  ].map((path) => ['path', `GET ${path}`, { path }, true] as const),
  ...(
    [
      [
        'one more byte than is read',
        post('/api/devices/enter', { body: JSON.stringify({ code: 'a', name: 'x', more: 'y'.repeat(2000) }) }),
        false,
      ],
      ['a body of 2 MB', post(BOOK, { body: `"${'y'.repeat(2_000_000)}"` }), true],
      ['a length that is a lie', post(BOOK, { body: '{}', headers: { 'Content-Length': '99999999' } }), true],
      ['a query of 4 kB', { path: `/api/shop/lines?piece=${'a'.repeat(4000)}` }, true],
      [
        'an id of 4 kB',
        post(`/api/shop/pieces/${'a'.repeat(4000)}/lines`, {
          body: JSON.stringify({ act: 'used', figure: 1, note: '', revision: 1 }),
        }),
        true,
      ],
      [
        'a note of 3 kB',
        post(BOOK, { body: JSON.stringify({ act: 'used', figure: 1, note: 'n'.repeat(3000), revision: 1 }) }),
        true,
      ],
    ] as const
  ).map(([name, sent, isIn]) => ['size', name, sent, isIn] as const),
  ...[
    'text/plain',
    'application/x-www-form-urlencoded',
    'multipart/form-data; boundary=x',
    'text/html',
    'application/octet-stream',
    '',
    'application/json+x',
    'application/jsonp',
    'application/xml',
    'text/json',
  ].map(
    (type) =>
      [
        'media type',
        type || 'none',
        post(BOOK, { body: '{"act":"used","figure":1,"note":"","revision":1}', headers: { 'Content-Type': type } }),
        true,
      ] as const,
  ),
  ...[
    '{',
    '[]',
    'null',
    '{"act":"used"}',
    '{"__proto__":{}}',
    '\u0000',
    '{"act":"used","figure":1e999,"note":"","revision":1}',
  ].map((body) => ['body', JSON.stringify(body), post(BOOK, { body }), true] as const),
];

describe('141 hostile requests', () => {
  it('are all refused with problem+json, and nothing is changed by them', async () => {
    const { cookie } = await letIn('Hijacked phone');
    const state = async () =>
      JSON.stringify([
        (await bench.api('GET', '/api/shop')).body,
        (await bench.api('GET', '/api/jobs')).body,
        (await bench.api<{ devices: unknown }>('GET', '/api/devices')).body.devices,
      ]).replace(/"seenAt":"[^"]*"/g, '');
    const before = await state();
    const cases = hostile();
    const answers: string[] = [];
    for (const [group, name, sent, isIn] of cases) {
      const answer = await send({ ...sent, headers: { ...(isIn ? { Cookie: cookie } : {}), ...sent.headers } }).catch(
        (error: NodeJS.ErrnoException) => ({
          status: 0,
          headers: { 'content-type': String(error.code ?? error.message) },
          text: '',
        }),
      );
      const isRefused =
        answer.status >= 400 &&
        answer.status < 500 &&
        answer.headers['content-type'] === 'application/problem+json' &&
        (JSON.parse(answer.text) as { title: string }).title.length > 0;
      if (!isRefused)
        answers.push(
          `${group}, ${name}: ${answer.status} ${answer.headers['content-type']} ${answer.text.slice(0, 80)}`,
        );
    }
    expect(answers).toEqual([]);
    expect(await state()).toBe(before);
    expect(cases.length).toBe(141);
  });
});

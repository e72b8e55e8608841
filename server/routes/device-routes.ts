import { encode } from 'uqr';
import { Problem } from '../problem.js';
import type { Route } from '../route.js';
import { giveCookie, ENTER_PATH } from '../sharing/shared-security.js';
import { ownAddresses, type SharedAddress, type SharedDoor } from '../sharing/shared-door.js';

const PEM = { anyOf: [{ type: 'string', maxLength: 100_000 }, { type: 'null' }] };
const KNOCKS_SHOWN = 20;

/** Other devices: where they come in, which are let in, and how they are sent away. For the bench computer alone. */
export function deviceRoutes(door: SharedDoor): Route[] {
  const now = async () => {
    const sharing = await door.devices.sharing();
    const { address } = door;
    return {
      open: address ? { url: address.origin, isSecure: address.isSecure } : null,
      wanted: sharing
        ? { address: sharing.address, port: sharing.port, hasCertificate: sharing.certificate !== null }
        : null,
      addresses: ownAddresses(),
      devices: await door.devices.list(),
      knocks: await door.devices.knocks(KNOCKS_SHOWN),
    };
  };
  return [
    {
      method: 'get',
      path: '/api/devices',
      summary: 'Where the shop is shared, which devices are let in, and who came with a wrong code',
      isPrivate: true,
      answer: 'Devices',
      answers: 'All of it',
      handle: now,
    },
    {
      method: 'put',
      path: '/api/devices/sharing',
      summary:
        'Share the shop on an address of this computer, with a certificate or (null) without; an address of null shuts it',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['address', 'port', 'certificate', 'privateKey'],
        properties: {
          address: { anyOf: [{ type: 'string', pattern: '^[0-9A-Fa-f.:]{2,45}$' }, { type: 'null' }] },
          port: { type: 'integer', minimum: 0, maximum: 65_535 },
          certificate: PEM,
          privateKey: PEM,
        },
      },
      answer: 'Devices',
      answers: 'What is shared now',
      handle: async ({ body }) => {
        const { address, port, certificate, privateKey } = body as {
          address: string | null;
          port: number;
          certificate: string | null;
          privateKey: string | null;
        };
        if (address === null) await door.close();
        else await door.open({ address, port, certificate, privateKey });
        return now();
      },
    },
    {
      method: 'post',
      path: '/api/devices/code',
      summary: 'A code that lets one device in, within two minutes, as a picture to scan. The one before is void',
      answer: 'PairingCode',
      answers: 'The address that is in the picture, the picture as rows of dots, and until when it is good',
      handle: () => {
        const { address } = door;
        if (!address) throw new Problem(409, 'not-shared', 'The shop is not shared. Choose an address first.');
        const { code, until } = door.pairing.make();
        // Behind the #, it is sent to nobody.
        const url = `${address.origin}/let-in#${code}`;
        const { data, size } = encode(url, { border: 2 });
        return Promise.resolve({
          url,
          size,
          rows: data.map((row) => row.map((dot) => (dot ? '1' : '0')).join('')),
          until: new Date(until).toISOString(),
        });
      },
    },
    {
      method: 'delete',
      path: '/api/devices/:id',
      summary: 'Send a device away: what it holds is worth nothing from now on, and it is hung up on',
      answer: 'Devices',
      answers: 'What is shared now',
      handle: async ({ params }) => {
        await door.sendAway(params['id']!);
        return now();
      },
    },
  ];
}

/** How a device comes in; only on the shared address. */
export function enterRoutes(door: SharedDoor, address: SharedAddress): Route[] {
  return [
    {
      method: 'post',
      path: ENTER_PATH,
      summary: 'Let a device in by the code that it scanned',
      body: {
        type: 'object',
        additionalProperties: false,
        required: ['code', 'name'],
        properties: {
          code: { type: 'string', minLength: 1, maxLength: 100 },
          name: { type: 'string', minLength: 1, maxLength: 60 },
        },
      },
      most: 2000,
      isBench: true,
      answer: 'LetIn',
      answers: 'The device, which holds a cookie from now on',
      handle: async ({ ctx, body }) => {
        const { code, name } = body as { code: string; name: string };
        const from = ctx.req.socket.remoteAddress ?? 'unknown';
        try {
          door.pairing.take(code, from);
        } catch (error) {
          await door.devices.logKnock(
            from,
            error instanceof Problem && error.code === 'too-many-codes'
              ? 'not heard: too many wrong codes'
              : 'a wrong code',
          );
          throw error;
        }
        const { device, token } = await door.devices.letIn(name.trim() || 'a device');
        await door.devices.logKnock(from, `let in as ${device.name}`);
        giveCookie(ctx, token, address.isSecure);
        return { name: device.name };
      },
    },
  ];
}

/** Who asks, so that a page knows what it may offer. */
export function askerRoute(): Route {
  return {
    method: 'get',
    path: '/api/asker',
    summary: 'Whether the bench computer asks, or a device that was let in',
    answer: 'Asker',
    answers: 'The device’s name; null for the bench computer',
    handle: ({ ctx }) =>
      Promise.resolve({ device: (ctx.state['device'] as { name: string } | undefined)?.name ?? null }),
  };
}

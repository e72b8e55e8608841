import type { Context, Middleware } from 'koa';
import { Problem } from '../problem.js';
import { setPageHeaders } from '../security.js';
import type { Device } from '../stores/device-store.js';
import type { SharedAddress, SharedDoor } from './shared-door.js';

/** What a let-in device holds: never seen by scripts, never sent from another site. */
const COOKIE = 'lantern-device';
const YEAR_S = 365 * 86_400;
/** The one thing that can be asked without having been let in. */
export const ENTER_PATH = '/api/devices/enter';

const isSafe = (method: string) => method === 'GET' || method === 'HEAD';

/**
 * Who may speak on a shared address: only under its own name, only pages that came from it, and all but the page itself only with the cookie of a
 * device that is let in.
 */
export function sharedSecurity(door: SharedDoor, { host, origin, isSecure }: SharedAddress): Middleware {
  return async (ctx, next) => {
    setPageHeaders(ctx);
    if (isSecure) ctx.set('Strict-Transport-Security', 'max-age=86400');
    if (ctx.get('host') !== host)
      throw new Problem(421, 'host-refused', 'This server answers only under its own address.');
    const from = ctx.get('origin');
    if (from ? from !== origin : !isSafe(ctx.method))
      throw new Problem(403, 'origin-refused', 'Requests from other pages are not answered.');
    if (ctx.get('sec-fetch-site') === 'cross-site' && (ctx.path.startsWith('/api') || !isSafe(ctx.method)))
      throw new Problem(403, 'origin-refused', 'Requests from other pages are not answered.');
    if (!isSafe(ctx.method) && !['POST', 'PUT', 'PATCH', 'DELETE'].includes(ctx.method))
      throw new Problem(405, 'method-refused', 'This cannot be asked for so.');
    const isPage = isSafe(ctx.method) && !/^\/api(\/|$)/i.test(decoded(ctx));
    const isEntering = ctx.method === 'POST' && ctx.path === ENTER_PATH;
    if (!isPage && !isEntering) {
      const device = await deviceOf(ctx, door);
      if (!device)
        throw new Problem(401, 'not-let-in', 'This device is not let in. Scan a new code on the bench computer.');
      door.speaks(device.id, ctx.req.socket);
      ctx.state['device'] = device;
    }
    await next();
  };
}

/** The device that asks; null for the bench computer itself. */
export function askingDevice(ctx: Context): Device | null {
  return (ctx.state['device'] as Device | undefined) ?? null;
}

/** Gives a device what it is known by. */
export function giveCookie(ctx: Context, token: string, isSecure: boolean): void {
  ctx.set(
    'Set-Cookie',
    `${COOKIE}=${token}; Path=/; HttpOnly; SameSite=Strict; Max-Age=${YEAR_S}${isSecure ? '; Secure' : ''}`,
  );
}

async function deviceOf(ctx: Context, door: SharedDoor): Promise<Device | null> {
  const tokens = ctx
    .get('cookie')
    .split(';')
    .map((part) => part.trim())
    .filter((part) => part.startsWith(`${COOKIE}=`))
    .map((part) => part.slice(COOKIE.length + 1));
  // Two of one name are no browser's doing.
  return tokens.length === 1 && tokens[0] !== '' ? door.devices.holding(tokens[0]!) : null;
}

/** The path with its escapes read: "/%61pi" is no way round. @throws Problem 400 */
function decoded(ctx: Context): string {
  try {
    return decodeURIComponent(ctx.path)
      .replace(/\/{2,}/g, '/')
      .replace(/\\/g, '/');
  } catch {
    throw new Problem(400, 'path-invalid', 'This address cannot be read.');
  }
}

import type { Context, Middleware } from 'koa';
import { Problem } from './problem.js';

/** Everything comes from here; the component styles need style elements. The page itself may evaluate nothing. */
const CONTENT_SECURITY_POLICY = [
  "default-src 'none'",
  "script-src 'self'",
  "worker-src 'self'",
  "style-src 'self' 'unsafe-inline'",
  "img-src 'self' data: blob:",
  "font-src 'self'",
  "connect-src 'self'",
  "form-action 'none'",
  "frame-ancestors 'none'",
  "base-uri 'none'",
].join('; ');

/**
 * For worker scripts, which live by the policy they are served with: the polygon kernel there is WebAssembly whose bindings write their
 * calls as code. A worker has no document and no storage, and what it is given are numbers and text that are never run.
 */
export const WORKER_POLICY = "default-src 'none'; script-src 'self' 'unsafe-eval'; connect-src 'self'";

const LOCAL_HOST = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/** What a browser is told about pages from here. */
export function setPageHeaders(ctx: Context): void {
  ctx.set('Content-Security-Policy', CONTENT_SECURITY_POLICY);
  ctx.set('X-Content-Type-Options', 'nosniff');
  ctx.set('Referrer-Policy', 'no-referrer');
  ctx.set('Cross-Origin-Opener-Policy', 'same-origin');
  ctx.set('Cross-Origin-Resource-Policy', 'same-origin');
}

/** Only this machine's own browser pages may speak to the server: Host and Origin are checked, so no other site can reach in. */
export const security: Middleware = async (ctx, next) => {
  setPageHeaders(ctx);
  if (!LOCAL_HOST.test(ctx.get('host')))
    throw new Problem(421, 'host-refused', 'This server answers only under its own local address.');
  const origin = ctx.get('origin');
  const changes = !['GET', 'HEAD', 'OPTIONS'].includes(ctx.method);
  if (origin && origin !== `http://${ctx.get('host')}`)
    throw new Problem(403, 'origin-refused', 'Requests from other pages are not answered.');
  if (changes && ctx.get('sec-fetch-site') === 'cross-site')
    throw new Problem(403, 'origin-refused', 'Requests from other pages are not answered.');
  await next();
};

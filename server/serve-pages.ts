import { extname } from 'node:path';
import type { Middleware } from 'koa';
import sirv from 'sirv';
import { WORKER_POLICY } from './security.js';

/**
 * The built pages, as they were compressed when they were built. An address without an ending gets the application, which knows its own routes;
 * a file that is not there is not there.
 */
export function servePages(folder: string): Middleware {
  const serve = sirv(folder, {
    etag: true,
    brotli: true,
    gzip: true,
    setHeaders: (response, path) => {
      const isAsset = path.startsWith('/assets/');
      // Assets carry a hash of their content in their names.
      response.setHeader('Cache-Control', isAsset ? 'public, max-age=31536000, immutable' : 'no-cache');
      if (isAsset && /-worker-[\w-]+\.js$/.test(path)) response.setHeader('Content-Security-Policy', WORKER_POLICY);
    },
  });
  return async (ctx, next) => {
    if (ctx.path.startsWith('/api/') || !['GET', 'HEAD'].includes(ctx.method)) return next();
    // A library that is handed an address it cannot read would serve it as it stands; the application says that there is nothing.
    if (!isReadable(ctx.path) || extname(decodeURIComponent(ctx.path)) === '') ctx.req.url = '/index.html';
    const isServed = await new Promise<boolean>((resolve) => {
      ctx.res.once('close', () => resolve(true));
      serve(ctx.req, ctx.res, () => resolve(false));
    });
    if (!isServed) return next();
    ctx.respond = false;
    return undefined;
  };
}

function isReadable(path: string): boolean {
  try {
    decodeURIComponent(path);
    return true;
  } catch {
    return false;
  }
}

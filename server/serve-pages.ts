import { createReadStream } from 'node:fs';
import { stat } from 'node:fs/promises';
import { extname, join, normalize } from 'node:path';
import type { Middleware } from 'koa';
import { WORKER_POLICY } from './security.js';

/** The built pages; an address that is no file and asks for a page gets the application, which knows its own routes. */
export function servePages(folder: string): Middleware {
  return async (ctx, next) => {
    if (ctx.path.startsWith('/api/') || !['GET', 'HEAD'].includes(ctx.method)) return next();
    const wanted = normalize(join(folder, decodeURIComponent(ctx.path)));
    const isAsset = ctx.path.startsWith('/assets/');
    const file = wanted.startsWith(folder) && extname(wanted) !== '' && (await isFile(wanted)) ? wanted : isAsset ? null : join(folder, 'index.html');
    if (!file || !(await isFile(file))) return next();
    ctx.type = extname(file);
    // Assets carry a hash of their content in their names.
    ctx.set('Cache-Control', isAsset ? 'public, max-age=31536000, immutable' : 'no-cache');
    if (isAsset && /-worker-[\w-]+\.js$/.test(file)) ctx.set('Content-Security-Policy', WORKER_POLICY);
    ctx.body = createReadStream(file);
    return undefined;
  };
}

async function isFile(path: string): Promise<boolean> {
  return stat(path).then(
    (entry) => entry.isFile(),
    () => false,
  );
}

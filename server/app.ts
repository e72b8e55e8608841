import Router from '@koa/router';
import Koa, { type Middleware } from 'koa';
import { openApiOf } from './openapi.js';
import { problems } from './problem.js';
import { register, type Route } from './route.js';
import { batchRoutes } from './routes/batch-routes.js';
import { changeRoutes } from './routes/change-routes.js';
import { cutRoutes } from './routes/cut-routes.js';
import { askerRoute, deviceRoutes, enterRoutes } from './routes/device-routes.js';
import { fontRoutes } from './routes/font-routes.js';
import { jobRoutes } from './routes/job-routes.js';
import { pictureRoutes } from './routes/picture-routes.js';
import { sheetRoutes } from './routes/sheet-routes.js';
import { shopRoutes } from './routes/shop-routes.js';
import { stockRoutes } from './routes/stock-routes.js';
import { security } from './security.js';
import type { Services } from './services.js';
import { servePages } from './serve-pages.js';
import type { SharedAddress, SharedDoor } from './sharing/shared-door.js';
import { sharedSecurity } from './sharing/shared-security.js';

/** Every route of the API on this computer's own address, the document of itself among them. */
export function apiRoutes(services: Services, door: SharedDoor): Route[] {
  const routes: Route[] = [
    ...jobRoutes(services),
    ...fontRoutes(services),
    ...shopRoutes(services),
    ...stockRoutes(services),
    ...pictureRoutes(services),
    ...cutRoutes(services),
    ...sheetRoutes(services),
    ...batchRoutes(services),
    ...changeRoutes(services),
    ...deviceRoutes(door),
    askerRoute(),
  ];
  routes.push({
    method: 'get',
    path: '/api/health',
    summary: 'Whether the server is there',
    answer: 'Health',
    answers: '{ ok: true }',
    handle: () => Promise.resolve({ ok: true }),
  });
  routes.push({
    method: 'get',
    path: '/api/openapi.json',
    summary: 'This document',
    answers: 'OpenAPI 3.1',
    handle: () => Promise.resolve(openApiOf(routes)),
  });
  return routes;
}

/** The HTTP application of this computer's own address: API under /api, the built pages elsewhere. */
export function makeApp(services: Services, pagesFolder: string | null, door: SharedDoor): Koa {
  return application(apiRoutes(services, door), security, pagesFolder);
}

/** The same on a shared address: with the way in, and only for devices that were let in. */
export function makeSharedApp(
  services: Services,
  pagesFolder: string | null,
  door: SharedDoor,
  address: SharedAddress,
): Koa {
  return application(
    [...enterRoutes(door, address), ...apiRoutes(services, door)],
    sharedSecurity(door, address),
    pagesFolder,
  );
}

function application(routes: readonly Route[], guard: Middleware, pagesFolder: string | null): Koa {
  const app = new Koa();
  const router = new Router();
  register(router, routes);
  app.use(problems);
  app.use(guard);
  app.use(router.routes());
  if (pagesFolder) app.use(servePages(pagesFolder));
  app.on('error', (error: NodeJS.ErrnoException) => {
    // A page that went away in the middle of an answer is no failure of ours.
    if (error.code !== 'EPIPE' && error.code !== 'ECONNRESET' && error.code !== 'ERR_STREAM_PREMATURE_CLOSE')
      console.error(error);
  });
  return app;
}

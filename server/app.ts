import Router from '@koa/router';
import Koa from 'koa';
import { openApiOf } from './openapi.js';
import { problems } from './problem.js';
import { register, type Route } from './route.js';
import { changeRoutes } from './routes/change-routes.js';
import { cutRoutes } from './routes/cut-routes.js';
import { fontRoutes } from './routes/font-routes.js';
import { jobRoutes } from './routes/job-routes.js';
import { sheetRoutes } from './routes/sheet-routes.js';
import { pictureRoutes } from './routes/picture-routes.js';
import { shopRoutes } from './routes/shop-routes.js';
import { stockRoutes } from './routes/stock-routes.js';
import { security } from './security.js';
import type { Services } from './services.js';
import { servePages } from './serve-pages.js';

/** Every route of the API, the document of itself among them. */
export function apiRoutes(services: Services): Route[] {
  const routes: Route[] = [...jobRoutes(services), ...fontRoutes(services), ...shopRoutes(services), ...stockRoutes(services), ...pictureRoutes(services), ...cutRoutes(services), ...sheetRoutes(services), ...changeRoutes(services)];
  routes.push({ method: 'get', path: '/api/health', summary: 'Whether the server is there', answer: 'Health', answers: '{ ok: true }', handle: () => Promise.resolve({ ok: true }) });
  routes.push({ method: 'get', path: '/api/openapi.json', summary: 'This document', answers: 'OpenAPI 3.1', handle: () => Promise.resolve(openApiOf(routes)) });
  return routes;
}

/** The HTTP application: API under /api, the built pages elsewhere. */
export function makeApp(services: Services, pagesFolder: string | null): Koa {
  const app = new Koa();
  const router = new Router();
  const routes = apiRoutes(services);
  register(router, routes);
  app.use(problems);
  app.use(security);
  app.use(router.routes());
  if (pagesFolder) app.use(servePages(pagesFolder));
  app.on('error', (error: NodeJS.ErrnoException) => {
    // A page that went away in the middle of an answer is no failure of ours.
    if (error.code !== 'EPIPE' && error.code !== 'ECONNRESET' && error.code !== 'ERR_STREAM_PREMATURE_CLOSE') console.error(error);
  });
  return app;
}

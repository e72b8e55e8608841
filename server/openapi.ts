import { RECIPE_SCHEMA } from '../core/recipe/index.js';
import { ANSWERS } from './answers.js';
import type { Route } from './route.js';

/** The OpenAPI document of the routes, from the schemas that check them. */
export function openApiOf(routes: readonly Route[]): object {
  const paths: Record<string, Record<string, unknown>> = {};
  for (const route of routes) {
    const path = route.path.replace(/:(\w+)/g, '{$1}');
    const parameters = [
      ...[...route.path.matchAll(/:(\w+)/g)].map(([, name]) => ({
        name,
        in: 'path',
        required: true,
        schema: { type: 'string' },
      })),
      ...Object.entries(route.query ?? {}).map(([name, schema]) => ({ name, in: 'query', required: false, schema })),
    ];
    const content =
      route.body === 'bytes'
        ? { 'application/octet-stream': { schema: { type: 'string', format: 'binary' } } }
        : { 'application/json': { schema: route.body } };
    (paths[path] ??= {})[route.method] = {
      summary: route.summary,
      ...(parameters.length > 0 ? { parameters } : {}),
      ...(route.body ? { requestBody: { required: true, content } } : {}),
      responses: {
        '200': {
          description: route.answers,
          ...(route.answer
            ? { content: { 'application/json': { schema: { $ref: `#/components/schemas/${route.answer}` } } } }
            : {}),
        },
        default: {
          description: 'What went wrong',
          content: { 'application/problem+json': { schema: { $ref: '#/components/schemas/Problem' } } },
        },
      },
    };
  }
  const problem = {
    type: 'object',
    required: ['type', 'status', 'code', 'title'],
    properties: {
      type: { type: 'string' },
      status: { type: 'integer' },
      code: { type: 'string' },
      title: { type: 'string' },
      path: { type: 'string' },
    },
  };
  return {
    openapi: '3.1.0',
    info: {
      title: 'Wry Lantern',
      version: '1',
      description: 'Jobs, artworks, plans and cuts of one sign shop. Lengths in mm.',
    },
    paths,
    components: { schemas: { Recipe: { ...RECIPE_SCHEMA, $id: undefined }, Problem: problem, ...ANSWERS } },
  };
}

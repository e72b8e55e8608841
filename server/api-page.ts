import { ANSWERS } from './answers.js';
import type { Route } from './route.js';

interface Shape {
  readonly $ref?: string;
  readonly type?: string;
  readonly enum?: readonly unknown[];
  readonly anyOf?: readonly Shape[];
  readonly items?: Shape;
  readonly required?: readonly string[];
  readonly properties?: Readonly<Record<string, Shape>>;
}

const INTRODUCTION = `# The API

REST under \`/api\`, on this machine’s own address only. Requests with another Host or Origin are refused. All of it, with the schemas of what it takes and answers, is at
[\`/api/openapi.json\`](http://127.0.0.1:4310/api/openapi.json). A body that is not JSON (for files: \`application/octet-stream\`) is refused with 415. Errors are problem+json:
\`{ type, status, code, title, path? }\`. The title is a sentence for people. Work stops when whoever asked for it hangs up. Lengths are in mm.

A write of a job or of the shop names the revision that it was made from, and gets 409 when there is a newer one. \`edit\` is a name of your own for a change: sent again, it is answered and
not done again. Server-sent events can be picked up again with \`Last-Event-ID\`.

This page is made from the routes (\`npm run docs\`), and a test holds it to them.
`;

/** The page of the documentation about the API. */
export function apiPage(routes: readonly Route[]): string {
  const rows = routes.map(({ method, path, summary, query, body, answer, answers }) => {
    const asked = [
      ...Object.keys(query ?? {}).map((name) => `?${name}`),
      ...(body === 'bytes' ? ['bytes'] : body ? Object.keys((body['properties'] ?? {}) as object) : []),
    ];
    return `| \`${method.toUpperCase()} ${path}\` | ${sentence(summary)} | ${asked.join(', ')} | ${answer ? `[${answer}](#answers)` : sentence(answers)} |`;
  });
  const shapes = Object.entries(ANSWERS).map(([name, shape]) => `**${name}** ${said(shape as Shape)}`);
  return `${INTRODUCTION}\n| route | what it does | it takes | it answers |\n|---|---|---|---|\n${rows.join('\n')}\n\n## Answers\n\nA \`?\` marks a field that may be missing.\n\n${shapes.join('\n\n')}\n`;
}

function sentence(text: string): string {
  return text.replaceAll('|', '\\|');
}

/** A schema in one line. */
function said({ $ref, type, enum: words, anyOf, items, required, properties }: Shape): string {
  if ($ref) return $ref.split('/').at(-1)!;
  if (words) return words.map((word) => (word === null ? 'null' : `“${String(word)}”`)).join(' or ');
  if (anyOf) return anyOf.map(said).join(' or ');
  if (type === 'array') return `list of ${said(items!)}`;
  if (properties)
    return `{ ${Object.entries(properties)
      .map(([name, shape]) => `\`${name}${required?.includes(name) ? '' : '?'}\`: ${said(shape)}`)
      .join(', ')} }`;
  return type ?? 'anything';
}

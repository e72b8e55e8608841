import { spawnSync } from 'node:child_process';
import { copyFileSync, existsSync, mkdtempSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, normalize } from 'node:path';
import { describe, expect, it } from 'vitest';
import { parseRecipe } from '../core/recipe/index.js';
import { SHOP_FILE_SCHEMA } from '../core/shop/index.js';
import { ANSWERS } from '../server/answers.js';

/* What the documentation shows is run, and where it points is looked at, so that it stays true. */

const PAGES = [
  'README.md',
  'CONTRIBUTING.md',
  ...readdirSync('docs')
    .filter((file) => file.endsWith('.md'))
    .map((file) => `docs/${file}`),
];
const read = (page: string) => readFileSync(page, 'utf8');
/** What stands between fences of a language. */
const blocks = (page: string, language = '') =>
  [...read(page).matchAll(/^```(\w*)\n([\s\S]*?)^```$/gm)]
    .filter(([, named]) => named === language)
    .map(([, , body]) => body!);

const out = mkdtempSync(join(tmpdir(), 'lantern-docs-'));
const recipe = JSON.parse(blocks('docs/recipe.md', 'json')[0]!) as object;
writeFileSync(join(out, 'recipe.json'), JSON.stringify(recipe));
writeFileSync(join(out, 'items.json'), blocks('docs/command-line.md', 'json')[0]!);
writeFileSync(
  join(out, 'batch.json'),
  JSON.stringify({ jobs: [{ recipe: 'recipe.json', copies: 2 }, { recipe: 'recipe.json' }] }),
);
copyFileSync('demo/artwork/heron-window.svg', join(out, 'heron-window.svg'));

const COMMAND = 'npm run -s lantern -- ';
const commands = PAGES.flatMap((page) =>
  blocks(page).flatMap((block) =>
    block
      .split('\n')
      .filter((line) => line.startsWith(COMMAND))
      .map((line) => [page, line.slice(COMMAND.length).trim()] as const),
  ),
);

describe('examples of the documentation', () => {
  it('are there', () => expect(commands.length).toBeGreaterThanOrEqual(6));

  it.each(commands)('%s: lantern %s', (_, command) => {
    const args = command.split(/\s+/).map((word) =>
      word
        .replace(/^OUT\b/, out)
        .replace('RECIPE.json', join(out, 'recipe.json'))
        .replace('ITEMS.json', join(out, 'items.json'))
        .replace('BATCH.json', join(out, 'batch.json')),
    );
    const { status, stderr } = spawnSync(process.execPath, ['scripts/run.mjs', 'cli/lantern', ...args], {
      encoding: 'utf8',
    });
    expect([status, stderr]).toEqual([0, '']);
  });

  it('the recipe is one, with every field of the newest version', () => expect(parseRecipe(recipe)).toEqual(recipe));
});

describe('the documentation points to what is there', () => {
  it.each(PAGES)('%s', (page) => {
    const text = read(page);
    const targets = [...text.matchAll(/\]\((?!https?:|#)([^)#\s]+)(?:#[^)]*)?\)/g)].map(([, path]) =>
      normalize(join(dirname(page), path!)),
    );
    const paths = [
      ...text.matchAll(/`((?:core|server|web|cli|platform|cutter|scripts|demo|docs|e2e|bench)\/[\w./-]+)`/g),
    ]
      .map(([, path]) => path!)
      .filter((path) => !path.includes('*') && !/-N\./.test(path));
    expect([...targets, ...paths].filter((path) => !existsSync(path))).toEqual([]);
  });

  it('names scripts that can be run', () => {
    const { scripts } = JSON.parse(read('package.json')) as { scripts: Record<string, string> };
    const named = new Set(
      PAGES.flatMap((page) => [...read(page).matchAll(/npm (?:run (?:-s )?)?([\w:]+)/g)].map(([, name]) => name!)),
    );
    const npm = ['test', 'demo', 'run', 'install', 'and', 'or', '11'];
    expect([...named].filter((name) => !(name in scripts) && !npm.includes(name))).toEqual([]);
  });
});

it('every field of a plan’s report is explained, with its unit', () => {
  const page = read('docs/report.md');
  const named = (schema: { properties?: Record<string, object>; items?: object }): string[] => [
    ...Object.entries(schema.properties ?? {}).flatMap(([name, inner]) => [name, ...named(inner)]),
    ...(schema.items ? named(schema.items) : []),
  ];
  const fields = [...new Set(named(ANSWERS.PlanReport as object))];
  expect(fields.length).toBeGreaterThan(40);
  expect(fields.filter((field) => !new RegExp(`\\b${field}\\b`).test(page))).toEqual([]);
});

it('the schema of a shop’s file is that of the code', () =>
  expect(JSON.parse(read('docs/shop.schema.json'))).toEqual(JSON.parse(JSON.stringify(SHOP_FILE_SCHEMA))));

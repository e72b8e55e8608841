import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import type { Browser } from './browser.js';

const AXE = readFileSync(createRequire(import.meta.url).resolve('axe-core/axe.min.js'), 'utf8');
const CHECK = `const done = arguments[arguments.length - 1];
  axe.run(document, { runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'] }).then((r) => done(r.violations.map((v) => v.id + ': ' + v.nodes.map((n) => n.html.slice(0, 160)).join(' | '))));`;

/** What axe objects to on the page that is shown. */
export async function violations({ driver }: Browser): Promise<string[]> {
  await driver.executeScript(AXE);
  return driver.executeAsyncScript<string[]>(CHECK);
}

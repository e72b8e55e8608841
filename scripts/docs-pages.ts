import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { marked } from 'marked';
import type { Plugin } from 'vite';

/** Writes the documentation as parts of pages beside the application, which shows them under /docs/: reasons on its pages lead there. */
export function docsPages(folder: string): Plugin {
  return {
    name: 'docs-pages',
    apply: 'build',
    async generateBundle() {
      for (const file of readdirSync(folder).filter((name) => name.endsWith('.md'))) {
        const text = readFileSync(join(folder, file), 'utf8')
          // Pages lead to pages; what is not part of the documentation cannot be followed from there.
          .replace(/\]\(([\w-]+)\.md(#[\w-]+)?\)/g, '](/docs/$1$2)')
          .replace(/!?\[([^\]]*)\]\((?!\/docs\/|https?:)[^)]*\)/g, '$1');
        this.emitFile({
          type: 'asset',
          fileName: `docs/${file.replace(/\.md$/, '.html')}`,
          source: await marked(text),
        });
      }
    },
  };
}

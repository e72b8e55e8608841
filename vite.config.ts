import { fileURLToPath } from 'node:url';
import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';
import { compression } from 'vite-plugin-compression2';
import { docsPages } from './scripts/docs-pages.js';
import { writeFaces } from './scripts/faces.js';
import { keepLastVersion } from './scripts/keep-last-version.js';
import { writeShopValidators } from './scripts/shop-validators.js';

const FOLDER = fileURLToPath(new URL('dist/web/', import.meta.url));

const cache = (name: string) => fileURLToPath(new URL(`node_modules/.cache/${name}/`, import.meta.url));

/** The interface speaks English: the components' own words in thirty other languages need not be fetched. */
const oneLanguage: Plugin = {
  name: 'one-language',
  enforce: 'pre',
  load: (id) => (/react-aria\/.*\/intl\/.*\/(?!en-US)[a-z]{2}-[A-Z]{2}\.m?js$/.test(id) ? 'export default {}' : null),
};

/**
 * Chromium now and then loses a tab when a module of a worker asks for its own address while the page is being left. The worker's
 * address serves as well, since every file is named by its path from the root.
 */
const ownAddress: Plugin = {
  name: 'own-address',
  renderChunk: (code) => ({ code: code.replaceAll('import.meta.url', 'self.location.href'), map: null }),
};

export default defineConfig(async () => ({
  root: 'web',
  resolve: {
    alias: {
      'faces.css': await writeFaces(cache('faces')),
      'shop-validators': writeShopValidators(cache('shop-validators')),
    },
  },
  plugins: [
    react(),
    oneLanguage,
    compression({ include: /\.(html|css|js|svg|wasm|ttf)$/, threshold: 1000, logLevel: 'silent' }),
    keepLastVersion(FOLDER),
    docsPages(fileURLToPath(new URL('docs/', import.meta.url))),
  ],
  build: {
    outDir: FOLDER,
    emptyOutDir: false,
    target: 'es2022',
    assetsInlineLimit: 0,
    chunkSizeWarningLimit: 900,
    rolldownOptions: { checks: { bundlerTimings: false } },
  },
  worker: { format: 'es' as const, plugins: () => [ownAddress] },
}));

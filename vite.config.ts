import react from '@vitejs/plugin-react';
import { defineConfig, type Plugin } from 'vite';

/** The interface speaks English: the components' own words in thirty other languages need not be fetched. */
const oneLanguage: Plugin = {
  name: 'one-language',
  enforce: 'pre',
  load: (id) => (/react-aria\/.*\/intl\/.*\/(?!en-US)[a-z]{2}-[A-Z]{2}\.m?js$/.test(id) ? 'export default {}' : null),
};

export default defineConfig({
  root: 'web',
  plugins: [react(), oneLanguage],
  build: { outDir: '../dist/web', emptyOutDir: true, target: 'es2022', assetsInlineLimit: 0, chunkSizeWarningLimit: 900 },
  worker: { format: 'es' },
});

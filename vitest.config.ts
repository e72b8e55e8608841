import { availableParallelism } from 'node:os';
import { defineConfig } from 'vitest/config';

// vitest's own loader wants a default export.
export default defineConfig({
  test: {
    // One worker for each of the processors: the runner would leave one of them idle.
    maxWorkers: availableParallelism(),
    projects: [
      {
        test: {
          name: 'core',
          include: ['core/**/*.test.ts', 'cutter/**/*.test.ts', 'web/**/*.test.{ts,tsx}'],
          setupFiles: ['core/testing/load-kernel.ts'],
          testTimeout: 420_000,
          hookTimeout: 180_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts', 'cli/**/*.test.ts'],
          setupFiles: ['core/testing/load-kernel.ts'],
          globalSetup: ['scripts/built-for-tests.mjs'],
          testTimeout: 180_000,
          hookTimeout: 180_000,
        },
      },
      {
        test: {
          name: 'browser',
          include: ['e2e/**/*.test.ts'],
          globalSetup: ['scripts/built-for-tests.mjs'],
          testTimeout: 300_000,
          hookTimeout: 180_000,
          fileParallelism: false,
          retry: { count: 1, condition: /tab crashed/ },
          sequence: { groupOrder: 1 },
        },
      },
    ],
  },
});

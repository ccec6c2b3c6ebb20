import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    // One for each core: what one file waits for, another works in.
    maxWorkers: 2,
    projects: [
      {
        test: {
          name: 'unit',
          include: ['core/**/*.test.ts', 'web/**/*.test.ts', 'web/**/*.test.tsx'],
          environment: 'node',
          // Modules are loaded once for all files: most of the time went into loading them for each.
          isolate: false,
          testTimeout: 30_000,
        },
      },
      {
        test: {
          name: 'server',
          include: ['server/**/*.test.ts', 'outside/**/*.test.ts'],
          environment: 'node',
          isolate: false,

          testTimeout: 60_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});

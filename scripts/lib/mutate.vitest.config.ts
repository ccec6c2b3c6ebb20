import { defineConfig } from 'vitest/config';

/** The tests of what is computed, alone: those of screens and the server would take hours for each folder. */
export default defineConfig({
  // How time grows tells nothing of what is computed, and takes a minute.
  test: {
    include: ['core/**/*.test.ts'],
    exclude: ['core/hostile.test.ts'],
    environment: 'node',
    testTimeout: 30_000,
  },
});

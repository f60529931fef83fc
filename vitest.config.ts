import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['src/**/*.test.ts', 'demo/**/*.test.ts'],
          setupFiles: ['tests/support/seeded.ts'],
          // Modules are read once for all files of a thread: nothing in them is changed by tests.
          isolate: false,
          pool: 'threads',
          // What a test does is bounded by its work; this only ends one that hangs.
          testTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'integration',
          include: ['tests/integration/**/*.test.ts'],
          fileParallelism: false,
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
    ],
  },
});

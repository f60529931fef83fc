import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    projects: [
      {
        test: {
          name: 'unit',
          include: ['src/**/*.test.{ts,tsx}', 'demo/**/*.test.ts'],
          setupFiles: ['tests/support/seeded.ts', 'tests/support/clean-page.ts'],
          // Modules are read once for all files of a thread: nothing in them is changed by tests.
          isolate: false,
          pool: 'threads',
          maxWorkers: 2,
          // What a test does is bounded by its work; this only ends one that hangs.
          testTimeout: 120_000,
          hookTimeout: 120_000,
        },
      },
      {
        test: {
          name: 'integration',
          // What the database gives is held against what it is said to be.
          env: { CHECK_ROWS: '1' },
          include: ['tests/integration/**/*.test.ts'],
          // Every file has a database of its own; what it reads is read once for all files of a process.
          isolate: false,
          maxWorkers: 2,
          testTimeout: 120_000,
          hookTimeout: 120_000,
          // What is waited for is an event, however slow the machine.
          expect: { poll: { timeout: 30_000 } },
        },
      },
    ],
  },
});

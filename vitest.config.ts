import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: {
    // Modules are shared by all files of a process, so what stands in for one does so for all.
    alias: [
      { find: 'next/headers', replacement: new URL('./src/app/server/testHeaders.ts', import.meta.url).pathname },
      { find: '@/ui/DateField', replacement: new URL('./src/ui/testDateField.tsx', import.meta.url).pathname },
      { find: '@', replacement: new URL('./src', import.meta.url).pathname },
    ],
  },
  test: {
    include: ['src/**/*.test.{ts,tsx}', 'scripts/**/*.test.ts', 'demo/**/*.test.ts'],
    environment: 'node',
    // One process for many files: each would open a database of its own otherwise, which takes longer than its tests.
    isolate: false,
    maxWorkers: 2,
    globalSetup: ['src/data/database/testTemplate.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});

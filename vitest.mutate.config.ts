import { defineConfig } from 'vitest/config';

/** The tests of core alone: they need no database, so that a mutant is tried in a moment. */
export default defineConfig({
  resolve: { alias: [{ find: '@', replacement: new URL('./src', import.meta.url).pathname }] },
  test: { include: ['src/core/**/*.test.ts'], environment: 'node', testTimeout: 30_000 },
});

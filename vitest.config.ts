import { defineConfig } from 'vitest/config';

export default defineConfig({
  resolve: { alias: { '@': new URL('./src', import.meta.url).pathname } },
  test: {
    include: ['src/**/*.test.ts', 'scripts/**/*.test.ts', 'demo/**/*.test.ts'],
    environment: 'node',
    globalSetup: ['src/data/testTemplate.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});

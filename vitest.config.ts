import { defineConfig } from 'vitest/config';
import { BaseSequencer, type TestSpecification } from 'vitest/node';

/** Files with a document (`.tsx`) come after all others: a process does not change what it runs in, and ends where the next file needs another. */
class DocumentsLast extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const sorted = await super.sort(files);
    const needsDocument = ({ moduleId }: TestSpecification) => moduleId.endsWith('.tsx');
    return [...sorted.filter((file) => !needsDocument(file)), ...sorted.filter(needsDocument)];
  }
}

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
    execArgv: ['--liftoff-only', '--max-semi-space-size=32'],
    sequence: { sequencer: DocumentsLast },
    globalSetup: ['src/data/database/testTemplate.ts'],
    testTimeout: 30_000,
    hookTimeout: 60_000,
  },
});

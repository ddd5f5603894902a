/** Checks everything: lint, types, unit tests, build, browser tests; doing before whatever is still to be done. */
import { ensureChromium } from './lib/chromium.mjs';
import { ensureBuilt, ensureInstalled, run, runSideBySide, tool } from './lib/project.mjs';

const step = async (name, work) => {
  console.log(`\n— ${name}`);
  const start = Date.now();
  await work();
  console.log(`  ${name}: ${Math.round((Date.now() - start) / 1000)} s`);
};

await step('packages', ensureInstalled);
await step('browser', ensureChromium);
await step('lint and types', () =>
  runSideBySide([
    ...[
      ['rules', 'unused'],
      ['types', 'layout'],
    ].map((names) => ['sh', ['-c', names.map((name) => `npm run --silent ${name}`).join(' && ')]]),
  ]),
);
await step('unit tests', () => run(tool('vitest'), ['run', '--reporter=default']));
await step('build', ensureBuilt);
await step('browser tests', () => run(tool('playwright'), ['test']));

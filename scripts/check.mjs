/** Checks everything: lint, types, unit tests, build, browser tests; doing before whatever is still to be done. */
import { ensureChromium } from './lib/chromium.mjs';
import { ensureBuilt, ensureInstalled, run, tool } from './lib/project.mjs';

const step = (name, work) => {
  console.log(`\n— ${name}`);
  const start = Date.now();
  work();
  console.log(`  ${name}: ${Math.round((Date.now() - start) / 1000)} s`);
};

step('packages', ensureInstalled);
step('browser', ensureChromium);
step('lint', () => run('npm', ['run', '--silent', 'lint']));
step('types', () => run('npm', ['run', '--silent', 'types']));
step('unit tests', () => run(tool('vitest'), ['run', '--reporter=default']));
step('build', ensureBuilt);
step('browser tests', () => run(tool('playwright'), ['test']));

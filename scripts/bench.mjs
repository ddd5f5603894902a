/** Runs a file of benchmarks, named first, against the built application, doing before whatever is still to be done. */
import { ensureChromium } from './lib/chromium.mjs';
import { ensureBuilt, ensureInstalled, run, tool } from './lib/project.mjs';

ensureInstalled();
ensureChromium();
ensureBuilt();
const [name, ...parameters] = process.argv.slice(2);
run(tool('tsx'), [`bench/${name}.ts`, ...parameters]);

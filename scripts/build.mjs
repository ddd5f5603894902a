/** Builds the application. */
import { bundleThreads } from './lib/bundles.mjs';
import { run, tool } from './lib/project.mjs';

run(tool('next'), ['build']);
await bundleThreads();

/**
 * Tries whether a test notices when files of core are changed: `npm run mutate -- <files>`; without any, those that decide what is sent
 * when, and by whom. What was tried before is kept and not tried again while nothing changed.
 */
import { ensureInstalled, run, tool } from './lib/project.mjs';

const USUAL = ['delivery', 'stages', 'rhythm', 'rights', 'holders', 'folder'].map((room) => `src/core/${room}/*.ts`);

ensureInstalled();
const files = process.argv.slice(2);
const mutated = [...(files.length > 0 ? files : USUAL), '!src/core/**/*.test.ts'];
run(tool('stryker'), ['run', '--mutate', mutated.join(',')]);

/** Starts Bimlo on a data folder of one's own, empty at first, on http://127.0.0.1:4310, doing before whatever is still to be done. */
import { join } from 'node:path';
import { ensureBuilt, ensureInstalled, ROOT, startEnvironment, startNetworks } from './lib/project.mjs';

ensureInstalled();
ensureBuilt();
const env = startEnvironment(join(ROOT, 'bimlo-data'));
// What belongs to the demo is nothing for one's own work: a clock that stands still, somebody chosen already.
delete process.env.BIMLO_NOW;
delete process.env.BIMLO_DEMO_PERSON;
Object.assign(process.env, env, { NODE_ENV: 'production' });
const { serve } = await import('./lib/serve.mjs');
const address = await serve(ROOT, Number(env.PORT));

// After the folder is had alone: networks of an earlier start are ended by these.
const networks = await startNetworks(env);
const end = () => {
  networks.kill();
  process.exit(0);
};
process.on('SIGINT', end);
process.on('SIGTERM', end);
process.on('exit', () => networks.kill());
console.log(`\nBimlo is open at ${address}\n  data: ${env.BIMLO_DATA}\n`);

/** Starts Bimlo with its demo data on http://127.0.0.1:4310, doing before whatever is still to be done. */
import {
  DEMO_PERSON,
  ensureBuilt,
  ensureInstalled,
  prepareDemo,
  ROOT,
  startEnvironment,
  startNetworks,
} from './lib/project.mjs';

ensureInstalled();
ensureBuilt();
const env = startEnvironment();
prepareDemo(env);
const networks = await startNetworks(env);

// Nobody signs in: the demo is looked at as its manager, or whoever is named, until somebody else is chosen.
Object.assign(process.env, { BIMLO_DEMO_PERSON: process.env.BIMLO_DEMO_PERSON || DEMO_PERSON }, env, {
  NODE_ENV: 'production',
});
const { serve } = await import('./lib/serve.mjs');
const end = () => {
  networks.kill();
  process.exit(0);
};
process.on('SIGINT', end);
process.on('SIGTERM', end);
process.on('exit', () => networks.kill());
const address = await serve(ROOT, Number(env.PORT));
console.log(`\nBimlo is open at ${address}\n  data: ${env.BIMLO_DATA}\n  made-up networks: ${env.BIMLO_NETWORK_URL}\n`);

/** Starts Bimlo for work on it: demo data, the made-up networks, and Next's own development server. */
import {
  DEMO_PERSON,
  ensureInstalled,
  NETWORKS,
  prepareDemo,
  run,
  startEnvironment,
  startNetworks,
  tool,
} from './lib/project.mjs';

ensureInstalled();
const env = startEnvironment();
prepareDemo(env);
const networks = await startNetworks(env, NETWORKS.sources);
process.on('exit', () => networks.kill());
run(tool('next'), ['dev', '-H', '127.0.0.1', '-p', env.PORT], {
  BIMLO_DEMO_PERSON: process.env.BIMLO_DEMO_PERSON || DEMO_PERSON,
  ...env,
});

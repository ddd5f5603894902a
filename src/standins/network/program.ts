/**
 * The made-up networks as a process of their own.
 *
 * Environment: BIMLO_NETWORK_PORT, BIMLO_NETWORK_STORE (a folder), BIMLO_NETWORK_FAULTS (JSON, see `Faults`), BIMLO_NOW (an instant at
 * which their clock stands until `PUT /clock` moves it).
 * Prints `networks ready on <port>` once it can be called.
 */
import { mkdirSync } from 'node:fs';
import { readFaults } from './faults';
import { endLeftOver } from './leftOver';
import { createNetworkServer } from './server';
import { openNetworkStore } from './store';

const folder = process.env.BIMLO_NETWORK_STORE;
if (!folder) throw new Error('BIMLO_NETWORK_STORE names no folder');
mkdirSync(folder, { recursive: true });
const port = Number(process.env.BIMLO_NETWORK_PORT ?? 4311);
await endLeftOver(`http://127.0.0.1:${port}`, folder);
const store = await openNetworkStore(folder);
const server = createNetworkServer({
  store,
  storeFolder: folder,
  faults: readFaults(JSON.parse(process.env.BIMLO_NETWORK_FAULTS ?? '{}') as Record<string, unknown>),
  frozenAt: process.env.BIMLO_NOW,
  onStop: stop,
});

function stop(): void {
  server.close(() => void store.close().then(() => process.exit(0)));
  server.closeAllConnections();
}

process.on('SIGTERM', stop);
process.on('SIGINT', stop);
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${port}, where the made-up networks answer, is taken. Choose another with BIMLO_NETWORK_PORT.`
      : error.message,
  );
  process.exit(1);
});
server.listen(port, '127.0.0.1', () => {
  const address = server.address();
  console.log(`networks ready on ${typeof address === 'object' && address ? address.port : '?'}`);
});

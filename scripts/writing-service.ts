/**
 * Starts the stand-in for a writing service on this machine: `npm run writing-service`. Port and key: BIMLO_WRITING_PORT (4313) and
 * BIMLO_WRITING_KEY (none).
 */
import type { AddressInfo } from 'node:net';
import { createWritingServer } from '@/standins/writing/server';

const key = process.env.BIMLO_WRITING_KEY ?? '';
const server = createWritingServer({
  key,
  onRequest: ({ task, wanted }) => console.log(`asked for ${wanted.length}: ${task}`),
});
server.listen(Number(process.env.BIMLO_WRITING_PORT ?? 4313), '127.0.0.1', () => {
  const { port } = server.address() as AddressInfo;
  console.log(`A writing service that knows nothing: http://127.0.0.1:${port}/${key === '' ? '' : ' (with a key)'}`);
});
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => server.close(() => process.exit(0)));

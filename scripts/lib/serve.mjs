import { createServer } from 'node:http';
import { hostname as machineName, networkInterfaces } from 'node:os';
import next from 'next';
import { addressOf, reachOf } from './reach.mjs';

/** What this machine is called on its networks. */
const ownAddresses = () => [
  machineName(),
  ...Object.values(networkInterfaces()).flatMap((all) => (all ?? []).map(({ address }) => address)),
];

/**
 * Serves the built application in this very process, so that ending the process ends all of Bimlo at once. Where it is reached
 * from elsewhere its settings say (`docs/running.md`); the application learns from here whether it is.
 *
 * @param {string} dir the project's folder
 * @param {number} port
 * @returns {Promise<string>} the address at which it is open
 */
export async function serve(dir, port) {
  const reach = reachOf(process.env, port, ownAddresses());
  if ('problem' in reach) {
    console.error(reach.problem);
    process.exit(1);
  }
  const { hostname, isOnlyHere, hosts, hops } = reach;
  process.env.BIMLO_ONLY_HERE = isOnlyHere ? '1' : '0';
  process.env.BIMLO_HOSTS = hosts.join(',');
  if (process.env.BIMLO_URL) process.env.BIMLO_URL = new URL(process.env.BIMLO_URL).origin;
  const app = next({ dev: false, dir, hostname, port });
  await app.prepare();
  const answer = app.getRequestHandler();
  const server = createServer((request, response) => {
    request.headers['x-bimlo-address'] = addressOf(
      request.headers['x-forwarded-for'],
      request.socket.remoteAddress,
      hops,
    );
    return answer(request, response);
  });
  await new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, hostname, resolve);
  }).catch((error) => {
    const words = {
      EADDRINUSE: `Port ${port} is taken. Choose another with PORT.`,
      EADDRNOTAVAIL: `${hostname} is no address of this machine. Choose one of it with HOST.`,
      ENOTFOUND: `${hostname} is no name of this machine. Choose one of it with HOST.`,
    };
    console.error(words[error.code] ?? error.message);
    process.exit(1);
  });
  return process.env.BIMLO_URL ?? `http://${isOnlyHere ? '127.0.0.1' : hostname}:${port}`;
}

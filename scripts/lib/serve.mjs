import { createServer } from 'node:http';
import next from 'next';

/**
 * Serves the built application in this very process, so that ending the process ends all of Bimlo at once.
 *
 * @param {string} dir the project's folder
 * @param {number} port on 127.0.0.1
 */
export async function serve(dir, port) {
  const hostname = process.env.HOST ?? '127.0.0.1';
  const app = next({ dev: false, dir, hostname, port });
  await app.prepare();
  const server = createServer(app.getRequestHandler());
  await new Promise((resolve, reject) => {
    server.once('error', reject);
    server.listen(port, hostname, resolve);
  }).catch((error) => {
    console.error(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Choose another with PORT.` : error.message);
    process.exit(1);
  });
}

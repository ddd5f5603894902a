import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NETWORKS } from '../../scripts/lib/project.mjs';

/** The frozen now that the demo data of tests is dated around: a Monday before noon. */
export const NOW = '2026-11-23T11:42:00.000Z';
/** The seeded data folder that tests copy. */
export const TEMPLATE = join(process.cwd(), 'test-results', 'template');
/** A data folder after its first start, in which nobody has begun. */
export const EMPTY_TEMPLATE = join(process.cwd(), 'test-results', 'empty');

/** What a network counts. */
export interface NetworkCounts {
  accepted: Record<string, number>;
  calls: Record<string, number>;
  refused: string[];
}

/** A Bimlo of a test's own, with its own networks and data folder. */
export interface TestServer {
  url: string;
  networkUrl: string;
  data: string;
  /** Where the networks keep what they took. */
  networkStore: string;
  /** Starts Bimlo (again), its clock standing where it was left. */
  start(): Promise<void>;
  /** Ends Bimlo as a crash would (SIGKILL); the networks live on. */
  kill(): Promise<void>;
  /** Ends Bimlo as a service manager does (SIGTERM). */
  terminate(): Promise<void>;
  /** Moves the clock and delivers what became due. */
  goTo(instant: string, options?: { wait?: boolean }): Promise<void>;
  counts(): Promise<NetworkCounts>;
  faults(settings: object): Promise<void>;
  /** Puts everything back to how it began: the data folder, the networks, the clock. */
  reset(): Promise<void>;
  end(): Promise<void>;
}

/** The flags of Node.js that `npm run demo` starts Bimlo with; and that its database is compiled once, plainly: a test ends before a better compilation pays. */
const { scripts } = JSON.parse(readFileSync('package.json', 'utf8')) as { scripts: { demo: string } };
const FLAGS = [...scripts.demo.split(' ').filter((word) => word.startsWith('--')), '--liftoff-only'];

/** Makes a Bimlo on free ports with a copy of a data folder (the demo's by default), and starts it. */
export async function startServer(env: Record<string, string> = {}, template = TEMPLATE): Promise<TestServer> {
  const root = mkdtempSync(join(tmpdir(), 'bimlo-e2e-'));
  const fill = () => cpSync(template, root, { recursive: true });
  fill();
  const [port, networkPort] = [Number(env.PORT ?? (await freePort())), await freePort()];
  const url = `http://${env.HOST ?? '127.0.0.1'}:${port}`;
  const networkUrl = `http://127.0.0.1:${networkPort}`;
  let now = NOW;
  let startedAt = NOW;
  let bimlo: ChildProcess | null = null;
  const common = { ...process.env, BIMLO_DATA: root, BIMLO_NETWORK_STORE: join(root, 'networks'), ...env };
  const startNetworks = () =>
    launch(NETWORKS.built, 'networks ready', { ...common, BIMLO_NETWORK_PORT: String(networkPort) });
  let networks = await startNetworks();

  async function end(signal: 'SIGKILL' | 'SIGTERM'): Promise<void> {
    if (!bimlo || bimlo.exitCode !== null || bimlo.signalCode !== null) return;
    const gone = once(bimlo, 'exit');
    bimlo.kill(signal);
    await gone;
  }

  async function endNetworks(): Promise<void> {
    const gone = once(networks, 'exit');
    networks.kill('SIGKILL');
    await gone;
  }

  const server: TestServer = {
    url,
    networkUrl,
    data: root,
    networkStore: common.BIMLO_NETWORK_STORE,
    start: async () => {
      startedAt = now;
      bimlo = await launch([...FLAGS, 'scripts/server.mjs'], 'bimlo ready', {
        ...common,
        PORT: String(port),
        BIMLO_NOW: now,
        BIMLO_DEMO_PERSON: env.BIMLO_DEMO_PERSON ?? 'ines',
        BIMLO_NETWORK_URL: networkUrl,
        BIMLO_SEND_TIMEOUT_MS: env.BIMLO_SEND_TIMEOUT_MS ?? '2000',
        BIMLO_LOG: 'warn',
      });
    },
    kill: () => end('SIGKILL'),
    terminate: () => end('SIGTERM'),
    goTo: async (instant, { wait = true } = {}) => {
      now = instant;
      const moved = fetch(`${url}/standins/clock`, { method: 'POST', body: JSON.stringify({ now: instant }) });
      if (wait) await moved;
      else moved.catch(() => undefined);
    },
    counts: async () => (await (await fetch(`${networkUrl}/counts`)).json()) as NetworkCounts,
    faults: async (settings) => {
      const response = await fetch(`${networkUrl}/faults`, { method: 'PUT', body: JSON.stringify(settings) });
      if (!response.ok) throw new Error(await response.text());
    },
    reset: async () => {
      now = NOW;
      // A folder that is opened anew begins at the clock that its process was started with.
      const goesOn = startedAt === NOW && bimlo!.exitCode === null && bimlo!.signalCode === null;
      if (goesOn) await fetch(`${url}/standins/folder`, { method: 'DELETE' });
      else await server.kill();
      await endNetworks();
      rmSync(root, { recursive: true });
      fill();
      networks = await startNetworks();
      if (!goesOn) await server.start();
    },
    end: async () => {
      await server.kill();
      await endNetworks();
      rmSync(root, { recursive: true, force: true });
    },
  };
  await server.start();
  return server;
}

async function launch(
  parameters: readonly string[],
  readyWords: string,
  env: NodeJS.ProcessEnv,
): Promise<ChildProcess> {
  const child = spawn(process.execPath, parameters, { env, stdio: ['ignore', 'pipe', 'pipe'] });
  let said = '';
  await new Promise<void>((resolve, reject) => {
    const listen = (text: Buffer) => {
      said += text.toString();
      if (said.includes(readyWords)) resolve();
    };
    child.stdout!.on('data', listen);
    child.stderr!.on('data', listen);
    child.once('exit', (code) => reject(new Error(`${parameters.join(' ')} ended with ${code}:\n${said}`)));
  });
  return child;
}

/** A port that nobody listens to. */
export async function freePort(): Promise<number> {
  const probe = createServer().listen(0, '127.0.0.1');
  await once(probe, 'listening');
  const { port } = probe.address() as AddressInfo;
  await new Promise((resolve) => probe.close(resolve));
  return port;
}

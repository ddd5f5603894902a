import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

/** The project's folder. */
export const ROOT = join(dirname(fileURLToPath(import.meta.url)), '../..');
process.chdir(ROOT);
// Nothing here calls anywhere outside this machine.
process.env.NEXT_TELEMETRY_DISABLED = '1';

const [major, minor] = process.versions.node.split('.').map(Number);
if (major < 20 || (major === 20 && minor < 9)) {
  console.error(`Bimlo needs Node.js 20.9 or newer; this is ${process.versions.node}.`);
  process.exit(1);
}

/** Runs a command to its end with its output shown; ends this process too when it fails. */
export function run(command, parameters, env = {}) {
  const { status, error } = spawnSync(command, parameters, { stdio: 'inherit', env: { ...process.env, ...env } });
  if (error) throw error;
  if (status !== 0) process.exit(status ?? 1);
}

/** Runs commands side by side, their output shown one after the other; ends this process too when one fails. */
export async function runSideBySide(commands) {
  const ended = await Promise.all(
    commands.map(
      ([command, parameters]) =>
        new Promise((resolve, reject) => {
          const child = spawn(command, parameters, { stdio: ['ignore', 'pipe', 'pipe'] });
          const output = [];
          child.stdout.on('data', (part) => output.push(part));
          child.stderr.on('data', (part) => output.push(part));
          child.on('error', reject);
          child.on('close', (status) => resolve({ status, output: Buffer.concat(output) }));
        }),
    ),
  );
  for (const { output } of ended) process.stdout.write(output);
  const failed = ended.find(({ status }) => status !== 0);
  if (failed) process.exit(failed.status ?? 1);
}

/** The path of a tool that came with the packages. */
export const tool = (name) => join('node_modules', '.bin', name);

const fingerprint = (paths) => {
  const hash = createHash('sha256');
  const add = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory())
      readdirSync(path)
        .sort()
        .forEach((name) => add(join(path, name)));
    else hash.update(path).update(readFileSync(path));
  };
  paths.forEach(add);
  return hash.digest('hex');
};

const isNoted = (file, value) => existsSync(file) && readFileSync(file, 'utf8') === value;

/** Installs the packages when they are missing or the lock file changed. */
export function ensureInstalled() {
  const note = 'node_modules/.bimlo-installed';
  const wanted = fingerprint(['package-lock.json']);
  if (isNoted(note, wanted)) return;
  console.log('Installing packages …');
  run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  writeFileSync(note, wanted);
}

/** Builds the application when its sources changed since the last build. */
export function ensureBuilt() {
  const note = '.next/bimlo-built';
  const wanted = fingerprint([
    'src',
    'public',
    'scripts/lib/bundles.mjs',
    'next.config.ts',
    'tsconfig.json',
    'package-lock.json',
  ]);
  if (isNoted(note, wanted)) return;
  console.log('Building, which takes about half a minute …');
  run(process.execPath, ['scripts/build.mjs']);
  writeFileSync(note, wanted);
}

/**
 * The environment that all parts of one start share: port, data folder, and where the made-up networks are.
 *
 * @param {string} folder the data folder where `BIMLO_DATA` names none
 */
export function startEnvironment(folder = join(ROOT, '.bimlo-data')) {
  const port = Number(process.env.PORT ?? 4310);
  const data = process.env.BIMLO_DATA ?? folder;
  return {
    PORT: String(port),
    BIMLO_DATA: data,
    BIMLO_NETWORK_PORT: process.env.BIMLO_NETWORK_PORT ?? String(port + 1),
    BIMLO_NETWORK_URL:
      process.env.BIMLO_NETWORK_URL ?? `http://127.0.0.1:${process.env.BIMLO_NETWORK_PORT ?? port + 1}`,
    BIMLO_NETWORK_STORE: process.env.BIMLO_NETWORK_STORE ?? join(data, 'networks'),
  };
}

/** The slug of the person as whom the demo is looked at until another is chosen: its manager. */
export const DEMO_PERSON = 'ines';

/** Makes the data folder hold the demo; `--reset` is handed on. */
export function prepareDemo(env) {
  run(tool('tsx'), ['demo/prepare.ts', ...process.argv.filter((word) => word === '--reset')], env);
}

/** What Node.js is given to run the made-up networks: as they were bundled with the build, or their sources, which take a second to read. */
export const NETWORKS = {
  built: ['.next/threads/networks.mjs'],
  sources: ['--import', 'tsx', 'src/standins/network/program.ts'],
};

/**
 * Starts the made-up networks as a process of their own; resolves once they answer.
 *
 * @param {Record<string, string>} env
 * @param {string[]} program one of `NETWORKS`
 */
export async function startNetworks(env, program = NETWORKS.built) {
  const child = spawn(process.execPath, program, {
    stdio: ['ignore', 'pipe', 'inherit'],
    env: { ...process.env, ...env },
  });
  await new Promise((resolve, reject) => {
    child.stdout.on('data', (text) => String(text).includes('networks ready') && resolve());
    child.on('exit', (code) => reject(new Error(`The made-up networks did not start (exit code ${code}).`)));
  });
  return child;
}

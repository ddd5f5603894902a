import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer, type AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, it } from 'vitest';

it('the networks say which setting to change where their port is taken', async () => {
  const other = createServer().listen(0, '127.0.0.1');
  await once(other, 'listening');
  const { port } = other.address() as AddressInfo;
  const folder = mkdtempSync(join(tmpdir(), 'bimlo-port-'));
  const program = spawn(process.execPath, ['--import', 'tsx', 'src/standins/network/program.ts'], {
    env: { ...process.env, BIMLO_NETWORK_PORT: String(port), BIMLO_NETWORK_STORE: folder },
  });
  let said = '';
  program.stderr.on('data', (data: Buffer) => void (said += data.toString()));
  const [status] = (await once(program, 'close')) as [number | null];
  other.close();
  rmSync(folder, { recursive: true, force: true });
  expect([status, said]).toEqual([
    1,
    expect.stringContaining(`Port ${port}, where the made-up networks answer, is taken`),
  ]);
  expect(said).toContain('BIMLO_NETWORK_PORT');
}, 30_000);

import { execFileSync } from 'node:child_process';
import { rmSync } from 'node:fs';
import { NOW, TEMPLATE } from './server';

/** Seeds one data folder that every test file starts a copy of. */
export default function prepare(): void {
  rmSync(TEMPLATE, { recursive: true, force: true });
  execFileSync(process.execPath, ['--import', 'tsx', 'demo/prepare.ts'], {
    stdio: 'inherit',
    env: { ...process.env, BIMLO_DATA: TEMPLATE, BIMLO_NETWORK_STORE: `${TEMPLATE}/networks`, BIMLO_NOW: NOW },
  });
}

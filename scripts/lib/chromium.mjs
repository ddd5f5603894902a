import { existsSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { run } from './project.mjs';

/** Installs Debian's Chromium where it is missing and this may be done; otherwise says what to do. */
export function ensureChromium() {
  const path = process.env.CHROMIUM ?? '/usr/bin/chromium';
  if (existsSync(path)) return;
  const canInstall = process.getuid?.() === 0 && spawnSync('apt-get', ['--version']).status === 0;
  if (!canInstall) {
    console.error('The browser tests need Chromium. Install it (“apt-get install chromium”), or name one in CHROMIUM.');
    process.exit(1);
  }
  console.log('Installing Chromium …');
  run('apt-get', ['update', '-qq']);
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], {
    DEBIAN_FRONTEND: 'noninteractive',
  });
}

import { existsSync } from 'node:fs';
import { spawnSync } from 'node:child_process';
import { run } from './project.mjs';

/** Debian's package without a window of its own, which draws in less time than the whole browser, and installs faster. */
const PACKAGE = 'chromium-headless-shell';
const PATHS = [`/usr/bin/${PACKAGE}`, '/usr/bin/chromium'];

/**
 * Path of the Chromium that browser tests are run in: the one named in CHROMIUM, or one of Debian's.
 *
 * @internal
 */
export const chromiumPath = () => process.env.CHROMIUM ?? PATHS.find((path) => existsSync(path)) ?? PATHS[0];

/** Installs Debian's Chromium where it is missing and this may be done; otherwise says what to do. */
export function ensureChromium() {
  if (existsSync(chromiumPath())) return;
  const canInstall = process.getuid?.() === 0 && spawnSync('apt-get', ['--version']).status === 0;
  if (!canInstall) {
    console.error(
      `The browser tests need Chromium. Install it (“apt-get install ${PACKAGE}”), or name one in CHROMIUM.`,
    );
    process.exit(1);
  }
  console.log('Installing Chromium …');
  run('apt-get', ['update', '-qq']);
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', PACKAGE], { DEBIAN_FRONTEND: 'noninteractive' });
}

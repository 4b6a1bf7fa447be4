import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { say, step } from './run.mjs';

const PLACES = [process.env.CHROMIUM, '/usr/bin/chromium', '/usr/bin/chromium-browser'].filter(Boolean);

/** Where Debian's Chromium is; installs it by apt-get when it may, and says what to do when it may not. */
export function chromium() {
  const found = PLACES.find((p) => existsSync(p));
  if (found) return found;
  const root = process.getuid?.() === 0;
  const apt = spawnSync('which', ['apt-get']).status === 0;
  if (!root || !apt) {
    say(
      '✗ Chromium is missing: install it (on Debian: sudo apt-get install chromium), or set CHROMIUM to its path, and run npm test again.',
    );
    process.exit(1);
  }
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  step('package lists', 'apt-get', ['update', '-qq'], 120, env);
  step('Chromium', 'apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], 300, env);
  return '/usr/bin/chromium';
}

import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { say, step } from './run.mjs';

const SHELL = '/usr/bin/chromium-headless-shell';
const PLACES = [process.env.CHROMIUM, SHELL, '/usr/bin/chromium', '/usr/bin/chromium-browser'].filter(
  Boolean,
);

/** Installs what reads PDFs in the tests (pdftotext), where it may and it is missing. */
export function poppler() {
  if (spawnSync('which', ['pdftotext']).status === 0) return;
  const root = process.getuid?.() === 0;
  if (!root || spawnSync('which', ['apt-get']).status !== 0) {
    say(
      '✗ pdftotext is missing: install it (on Debian: sudo apt-get install poppler-utils), and run npm test again.',
    );
    process.exit(1);
  }
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  step('package lists', 'apt-get', ['update', '-qq'], 120, env);
  step('Poppler', 'apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'poppler-utils'], 300, env);
}

/**
 * Where Debian's Chromium is; installs it by apt-get when it may, and says what to do when it may not.
 * The build without windows is preferred: it starts and draws faster, and nothing here needs a window.
 */
export function chromium() {
  const found = PLACES.find((p) => existsSync(p));
  if (found) return found;
  const root = process.getuid?.() === 0;
  const apt = spawnSync('which', ['apt-get']).status === 0;
  if (!root || !apt) {
    say(
      '✗ Chromium is missing: install it (on Debian: sudo apt-get install chromium-headless-shell), or set CHROMIUM to its path, and run npm test again.',
    );
    process.exit(1);
  }
  const env = { DEBIAN_FRONTEND: 'noninteractive' };
  step('package lists', 'apt-get', ['update', '-qq'], 120, env);
  const what = ['install', '-y', '-qq', '--no-install-recommends', 'chromium-headless-shell'];
  step('Chromium', 'apt-get', what, 300, env);
  return SHELL;
}

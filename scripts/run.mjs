import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';

/* What the commands of this project share. Plain Node, since it runs before anything is installed. */

process.chdir(resolve(import.meta.dirname, '..'));
process.env.NEXT_TELEMETRY_DISABLED = '1';

export const say = (text) => process.stdout.write(`${text}\n`);

/** Runs a command to its end within a bound of seconds; ends this process when it fails. */
export function step(name, command, args, seconds, env = {}) {
  const from = Date.now();
  say(`\n— ${name}`);
  const done = spawnSync(command, args, {
    stdio: 'inherit',
    timeout: seconds * 1000,
    killSignal: 'SIGKILL',
    env: { ...process.env, ...env },
  });
  const took = ((Date.now() - from) / 1000).toFixed(1);
  if (done.status !== 0) {
    say(
      `✗ ${name}: ${done.error?.code === 'ETIMEDOUT' ? `not done after ${seconds} s` : `failed after ${took} s`}`,
    );
    process.exit(1);
  }
  say(`✓ ${name}, ${took} s`);
}

/**
 * Runs a command beside others, its words kept until it ends; the promise is kept when it succeeds, and this process ends when
 * it fails or takes longer than its bound of seconds.
 */
export function beside(name, command, args, seconds) {
  const from = Date.now();
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    let words = '';
    const fail = (why) => {
      say(`\n— ${name}\n${words}✗ ${name}: ${why}`);
      process.exit(1);
    };
    const timer = setTimeout(() => {
      child.kill('SIGKILL');
      fail(`not done after ${seconds} s`);
    }, seconds * 1000);
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (text) => (words += text));
    child.on('error', (error) => fail(error.message));
    child.on('close', (code) => {
      clearTimeout(timer);
      const took = ((Date.now() - from) / 1000).toFixed(1);
      if (code !== 0) fail(`failed after ${took} s`);
      say(`\n— ${name}\n${words}✓ ${name}, ${took} s`);
      resolve();
    });
  });
}

/** A fingerprint of files and folders, by content. */
export function fingerprint(paths) {
  const hash = createHash('sha256');
  const visit = (path) => {
    if (!existsSync(path)) return;
    if (statSync(path).isDirectory()) for (const name of readdirSync(path).sort()) visit(join(path, name));
    else hash.update(path).update(readFileSync(path));
  };
  paths.forEach(visit);
  return hash.digest('hex');
}

const stamp = (name) => join('node_modules', '.cache', `tellan-${name}`);
const read = (name) => (existsSync(stamp(name)) ? readFileSync(stamp(name), 'utf8') : '');
function write(name, value) {
  mkdirSync(join('node_modules', '.cache'), { recursive: true });
  writeFileSync(stamp(name), value);
}

/** Installs the packages of the lock file when they are not those installed. */
export function install() {
  const [major = 0] = process.versions.node.split('.').map(Number);
  if (major < 20) {
    say(`Tellan needs Node 20 or newer; this is ${process.version}.`);
    process.exit(1);
  }
  const wanted = fingerprint(['package-lock.json', 'package.json', '.npmrc']);
  if (existsSync('node_modules/next/package.json') && read('installed') === wanted) return;
  // Not `npm ci`: it refuses a lock file that lacks other platforms' optional binaries, which a mirror of the
  // registry may not hold. `--no-save` takes the versions of the lock file and leaves it as it is.
  step('install', 'npm', ['install', '--no-save', '--no-audit', '--no-fund'], 300);
  write('installed', wanted);
}

const SOURCES = ['src', 'public', 'next.config.ts', 'package-lock.json', 'tsconfig.json'];
export const NEXT = 'node_modules/next/dist/bin/next';

/** Builds the app when what it is built from has changed. */
export function build() {
  const wanted = fingerprint(SOURCES);
  if (existsSync('.next/BUILD_ID') && read('built') === wanted) return;
  step('production build', 'node', [NEXT, 'build'], 240);
  write('built', wanted);
}

/** Starts a long-running command in the foreground and ends with it. */
export function stay(command, args) {
  const child = spawn(command, args, { stdio: 'inherit' });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.on('exit', (code) => process.exit(code ?? 0));
  return child;
}

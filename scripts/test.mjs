import { availableParallelism } from 'node:os';
import { chromium, poppler } from './chromium.mjs';
import { beside, build, install, say, step } from './run.mjs';

/* Everything that must hold before a change lands. The bounds in time only end what hangs: some four times
   what a step takes on two idle cores. */

const bin = (name) => `node_modules/.bin/${name}`;
const from = Date.now();
install();
const browser = chromium();
poppler();
// Lint works on one core for minutes; what needs the other stands beside it.
const linted = beside('lint', 'npm', ['run', '--silent', 'lint'], 900);
await beside('formatting', 'npm', ['run', '--silent', 'format:check'], 180);
await beside('types', 'npm', ['run', '--silent', 'types'], 480);
// By itself it leaves a core free, which on two of them is half of the machine.
const workers = Math.max(2, availableParallelism() - 1);
await beside('unit tests', bin('jest'), ['--ci', `--maxWorkers=${workers}`], 900);
await linted;
build();
step('browser tests', bin('playwright'), ['test'], 1500, { CHROMIUM: browser });
say(`\n✓ all of it, ${((Date.now() - from) / 1000).toFixed(0)} s`);

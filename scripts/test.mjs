import { chromium, poppler } from './chromium.mjs';
import { build, install, say, step } from './run.mjs';

/* Everything that must hold before a change lands. The bounds in time only end what hangs: some four times
   what a step takes on two idle cores. */

const bin = (name) => `node_modules/.bin/${name}`;
const from = Date.now();
install();
const browser = chromium();
poppler();
step('formatting', 'npm', ['run', '--silent', 'format:check'], 180);
step('lint', 'npm', ['run', '--silent', 'lint'], 900);
step('types', 'npm', ['run', '--silent', 'types'], 480);
step('unit tests', bin('jest'), ['--ci'], 600);
build();
step('browser tests', bin('playwright'), ['test'], 1500, { CHROMIUM: browser });
say(`\n✓ all of it, ${((Date.now() - from) / 1000).toFixed(0)} s`);

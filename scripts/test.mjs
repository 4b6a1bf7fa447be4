import { chromium } from './chromium.mjs';
import { build, install, say, step } from './run.mjs';

/* Everything that must hold before a change lands, each step with a bound in time. */

const bin = (name) => `node_modules/.bin/${name}`;
const from = Date.now();
install();
const browser = chromium();
step('formatting', 'npm', ['run', '--silent', 'format:check'], 60);
step('lint', 'npm', ['run', '--silent', 'lint'], 480);
step('types', 'npm', ['run', '--silent', 'types'], 240);
step('unit tests', bin('jest'), ['--ci'], 300);
build();
step('browser tests', bin('playwright'), ['test'], 600, { CHROMIUM: browser });
say(`\n✓ all of it, ${((Date.now() - from) / 1000).toFixed(0)} s`);

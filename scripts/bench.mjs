import { chromium } from './chromium.mjs';
import { build, install, step } from './run.mjs';

install();
const browser = chromium();
build();
const jiti = { JITI_TSCONFIG_PATHS: '1' };
step(
  'bench: the core',
  'node',
  ['--expose-gc', 'node_modules/jiti/lib/jiti-cli.mjs', 'bench/core.ts'],
  600,
  jiti,
);
step('bench: the browser', 'node', ['node_modules/jiti/lib/jiti-cli.mjs', 'bench/browser.ts'], 600, {
  ...jiti,
  CHROMIUM: browser,
});

import { join } from 'node:path';
import { chromium } from './chromium.mjs';
import { build, install, step } from './run.mjs';

install();
const browser = chromium();
build();
// Imported late: before `install` there may be nothing to compile with.
const { compile } = await import('./compile.mjs');
const out = compile(['src/core', 'src/demo', 'bench']);
step('bench: the core', 'node', ['--expose-gc', join(out, 'bench/core.js')], 600);
step('bench: the browser', 'node', [join(out, 'bench/browser.js')], 900, { CHROMIUM: browser });

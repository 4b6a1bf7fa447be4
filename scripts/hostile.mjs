import { join } from 'node:path';
import { chromium } from './chromium.mjs';
import { build, install, step } from './run.mjs';

/* What tries to break the app, all of it, with its counts printed: a little of it runs with every `npm test`. */

install();
const browser = chromium();
build();
const jest = (name, what, seconds, env) =>
  step(name, 'node_modules/.bin/jest', ['--ci', '--silent=false', ...what], seconds, env);
const all = { TELLAN_HOSTILE: '1' };
jest('books over tabs, kills and refused writes', ['src/store/keeping/library'], 900, {
  TELLAN_LIVES: '5000',
});
jest('files and storage', ['hostile'], 3600, all);
jest('workbooks', ['src/core/files/workbook'], 600, all);
// Imported late: before `install` there may be nothing to compile with.
const { compile } = await import('./compile.mjs');
const out = compile(['src/core', 'bench']);
step('the browser killed while it saves', 'node', [join(out, 'bench/kills.js')], 3600, { CHROMIUM: browser });

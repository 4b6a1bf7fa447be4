import { chromium as playwright } from '@playwright/test';
import { chromium } from './chromium.mjs';
const browser = await playwright.launch({ executablePath: chromium(), args: ['--no-sandbox'] });
const page = await browser.newPage({ viewport: { width: 1280, height: 800 } });
page.on('pageerror', (e) => console.log('ERR', e.message));
const mod = await import(process.argv[2]);
await mod.default(page, (name) => page.screenshot({ path: `/tmp/${name}.png` }));
await browser.close();

import { chromium } from '@playwright/test';
export async function launch() { return chromium.launch({ executablePath: '/usr/bin/chromium-headless-shell', args: ['--no-sandbox'] }); }

import { defineConfig } from '@playwright/test';

const PORT = 4312;

/** Browser tests run against the production build, in Debian's Chromium. */
export default defineConfig({
  testDir: 'e2e',
  // Bounds that only end what hangs: the machine may have much else to do.
  timeout: 180_000,
  expect: { timeout: 20_000 },
  workers: 2,
  fullyParallel: true,
  forbidOnly: Boolean(process.env.CI),
  reporter: [['list']],
  use: {
    baseURL: `http://localhost:${PORT}`,
    viewport: { width: 1280, height: 800 },
    locale: 'en-US',
    trace: 'off',
    launchOptions: {
      executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
      args: ['--no-sandbox'],
    },
  },
  webServer: {
    command: `node node_modules/next/dist/bin/next start --hostname 127.0.0.1 --port ${PORT}`,
    url: `http://localhost:${PORT}/books`,
    reuseExistingServer: false,
    timeout: 60_000,
  },
});

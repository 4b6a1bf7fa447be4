import { spawn, type ChildProcess } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { chromium, type Browser, type Page } from '@playwright/test';
import { randomOf } from '@/core/test/random';

/*
 * Kills the browser, all of it, while the app saves: again and again over the same storage on disk. After each kill the
 * book must open at a state that holds every figure that was said to be saved, and at most the last change may be gone.
 */

const PORT = 4331;
const KILLS = Number(process.env.TELLAN_KILLS ?? 200);
const URL_OF = `http://localhost:${PORT}`;

/** At the `last` change or the one `before` it; more is `lost`, or something is `broken`. */
type Outcome = 'last' | 'before' | 'lost' | 'broken';

type Running = { readonly child: ChildProcess; readonly browser: Browser; readonly page: Page };

/** A browser of our own over a profile, so that it can be ended by its number. */
async function open(profile: string): Promise<Running> {
  const told = join(profile, 'DevToolsActivePort');
  rmSync(told, { force: true });
  const child = spawn(
    process.env.CHROMIUM ?? '/usr/bin/chromium-headless-shell',
    [
      '--headless',
      '--no-sandbox',
      '--disable-gpu',
      '--no-first-run',
      '--disable-background-networking',
      '--remote-debugging-port=0',
      `--user-data-dir=${profile}`,
      'about:blank',
    ],
    { stdio: 'ignore', detached: true },
  );
  let port = '';
  for (let i = 0; i < 300 && port === ''; i++) {
    await new Promise((r) => setTimeout(r, 50));
    if (existsSync(told)) port = readFileSync(told, 'utf8').split('\n')[0]!.trim();
  }
  const browser = await chromium.connectOverCDP(`http://127.0.0.1:${port}`);
  const page = browser.contexts()[0]!.pages()[0] ?? (await browser.contexts()[0]!.newPage());
  await page.setViewportSize({ width: 1280, height: 2200 });
  await page.goto(`${URL_OF}/budget`);
  await page.getByTestId('saved').waitFor({ timeout: 60_000 });
  const held = page.getByRole('button', { name: 'Show it', exact: true });
  if (await held.isVisible()) await held.click();
  await page.getByRole('grid').waitFor();
  return { child, browser, page };
}

/** Ends the browser with all its processes at once, as a power cut would. */
async function kill({ child, browser }: Running): Promise<void> {
  const gone = new Promise((done) => child.once('exit', done));
  process.kill(-child.pid!, 'SIGKILL');
  await gone;
  await browser.close().catch(() => undefined);
}

const cell = (page: Page) =>
  page.getByRole('row', { name: /^(\d+ ?)?Cleaning/ }).locator('[data-column="0"]');
const figureOf = async (page: Page): Promise<number> =>
  Number((await cell(page).textContent())!.replace(/\D/g, ''));

async function main(): Promise<void> {
  const server: ChildProcess = spawn(
    'node',
    ['node_modules/next/dist/bin/next', 'start', '--hostname', '127.0.0.1', '--port', String(PORT)],
    { stdio: 'ignore' },
  );
  for (
    let i = 0;
    i < 60 &&
    !(await fetch(URL_OF).then(
      (r) => r.ok,
      () => false,
    ));
    i++
  )
    await new Promise((r) => setTimeout(r, 500));
  const profile = mkdtempSync(join(tmpdir(), 'tellan-kills-'));
  const random = randomOf(20261128);
  const count: Record<Outcome, number> = { last: 0, before: 0, lost: 0, broken: 0 };
  let [kills, whileSaving] = [0, 0];
  let figure = 1000;
  try {
    let running = await open(profile);
    for (; whileSaving < KILLS && kills < 3 * KILLS; kills++) {
      let { page } = running;
      // A few figures one after another, some of them waited for; then the end comes within the time that a save takes.
      let said = await figureOf(page);
      const typed: number[] = [said];
      for (let k = 1 + random.below(3); k > 0; k--) {
        figure++;
        typed.push(figure);
        await cell(page).click();
        await page.keyboard.type(String(figure));
        await page.keyboard.press('Enter');
        if (k > 1 && random.below(2) === 0) {
          await page.getByTestId('saved').waitFor();
          said = figure;
        }
      }
      // A save begins after 60 ms and takes some tens: the end comes before, within or just after it.
      await page.waitForTimeout(random.below(60));
      const saved = await page.getByTestId('saved').isVisible();
      if (saved) said = figure;
      else whileSaving++;
      await kill(running);
      running = await open(profile);
      ({ page } = running);
      const now = await figureOf(page);
      const at = typed.indexOf(now);
      if (now === figure) count.last++;
      // The last change, and nothing that was said to be saved, may be gone.
      else if (at >= typed.indexOf(said) && at === typed.length - 2) count.before++;
      else if (at >= 0) count.lost++;
      else count.broken++;
      if (await page.getByText(/This is not the last state|Opened without|checks fail/).isVisible())
        count.broken++;
    }
    await kill(running);
  } finally {
    server.kill();
    rmSync(profile, { recursive: true, force: true });
  }
  const good = count.lost === 0 && count.broken === 0 && whileSaving >= KILLS;
  process.stdout.write(
    `${good ? '✓' : '✗'} the browser killed ${kills} times, ${whileSaving} of them with something unsaved or being saved: opened at the last change ${count.last}, at the one before it ${count.before}; lost more, or what was said to be saved ${count.lost}; broken ${count.broken}\n`,
  );
  process.exitCode = good ? 0 : 1;
}

await main();

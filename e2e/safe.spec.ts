import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import type { Page } from '@playwright/test';
import { cell, expect, newBook, openApp, saved, stage, TALL, takeIn, test } from './fixture';

test.use({ viewport: TALL });

const menu = (page: Page) => page.getByRole('button', { name: /^Book:/ }).click();
const choose = async (page: Page, name: RegExp) => {
  await menu(page);
  await page.getByRole('menuitem', { name }).click();
};
const type = async (page: Page, line: string, figure: string) => {
  await cell(page, line, 0).click();
  await page.keyboard.type(figure);
  await page.keyboard.press('Enter');
};

/** Does something with every key of the storage that a pattern finds. */
const spoil = (page: Page, pattern: RegExp, value: unknown) =>
  page.evaluate(
    ([source, value]) =>
      new Promise<number>((resolve, reject) => {
        const open = indexedDB.open('tellan');
        open.onerror = () => reject(open.error);
        open.onsuccess = () => {
          const store = open.result.transaction('books', 'readwrite').objectStore('books');
          const keys = store.getAllKeys();
          keys.onsuccess = () => {
            const found = (keys.result as string[]).filter((k) => new RegExp(source as string).test(k));
            found.forEach((k) => store.put(value, k));
            store.transaction.oncomplete = () => {
              open.result.close();
              resolve(found.length);
            };
          };
        };
      }),
    [pattern.source, value] as const,
  );

test.describe('amounts', () => {
  test('one that is too large is refused where it is typed, pasted, filled or worked out, and nothing else is touched', async ({
    page,
    context,
  }) => {
    await context.grantPermissions(['clipboard-read', 'clipboard-write']);
    await openApp(page);
    await stage(page, 'Budget');
    const before = await cell(page, 'Cleaning', 0).textContent();
    for (const figure of ['90071992547409', '90000000000000', '9'.repeat(30), '99999999999.999']) {
      await type(page, 'Cleaning', figure);
      await expect(
        page.getByText(/is the most that an amount can be|decimals at most/).first(),
      ).toBeVisible();
      await page.keyboard.press('Escape');
      await expect(cell(page, 'Cleaning', 0)).toHaveText(before!);
    }
    // The largest that there is goes in; a tool that would raise it is refused, and so is a block of barcodes.
    await type(page, 'Cleaning', '99999999999.99');
    await expect(cell(page, 'Cleaning', 0)).toHaveText('100,000,000,000');
    await cell(page, 'Cleaning', 0).click();
    await page.keyboard.type('+5%');
    await page.keyboard.press('Enter');
    await expect(page.getByText(/most that one can be/).first()).toBeVisible();
    await page.keyboard.press('Escape');
    await page.evaluate(() =>
      navigator.clipboard.writeText('4006381333931\t4006381333948\n5901234123457\t5901234123464'),
    );
    await cell(page, 'Cleaning', 1).click();
    await page.keyboard.press('Control+v');
    await expect(page.getByText(/most that an amount can be|can be/).first()).toBeVisible();
    // Every screen still stands, also after a reload.
    await saved(page);
    for (const name of ['Variance', 'Books', 'Budget'] as const) await stage(page, name);
    await page.reload();
    await expect(cell(page, 'Cleaning', 0)).toHaveText('100,000,000,000');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(cell(page, 'Cleaning', 0)).toHaveText(before!);
  });

  test('a file with a column of long numbers names the rows that are too large', async ({ page }) => {
    await openApp(page);
    await newBook(page, 'Codes');
    await page.getByLabel('Ledger file').setInputFiles({
      name: 'codes.csv',
      mimeType: 'text/csv',
      buffer: Buffer.from(
        'Date,Ref,Account,Debit,Credit\n2025-01-05,1,Bank,10,\n2025-01-05,1,Sales,,10\n2025-01-06,2,Bank,4006381333931,\n',
      ),
    });
    await expect(page.getByText(/larger than any amount can be/).first()).toBeVisible();
    await expect(page.getByText(/an amount larger than any can be/).first()).toBeVisible();
  });
});

test('what is longer than may be kept cannot be typed; what is kept opens again', async ({ page }) => {
  await openApp(page);
  await newBook(page, 'Long');
  await takeIn(page, {
    name: 'l.csv',
    text: 'Date,Ref,Account,Debit,Credit,Site\n2025-01-05,1,Bank,10,,North\n2025-01-05,1,Sales,,10,North\n',
  });
  await page
    .getByRole('radiogroup', { name: 'View' })
    .getByText(/^Accounts/)
    .click();
  const group = page.getByLabel('Group of Sales');
  await group.fill('g'.repeat(150));
  await group.press('Enter');
  await expect(group).toHaveValue('g'.repeat(120));
  await saved(page);
  await choose(page, /^Rename/);
  await page.getByLabel('Name', { exact: true }).fill('n'.repeat(200));
  await page.getByRole('button', { name: 'Rename', exact: true }).click();
  await choose(page, /^Duplicate/);
  await page.getByRole('button', { name: 'Duplicate', exact: true }).click();
  await expect(page.getByRole('button', { name: `Book: ${'n'.repeat(114)}, copy` })).toBeVisible();
  await saved(page);
  await page.reload();
  await expect(page.getByRole('button', { name: `Book: ${'n'.repeat(114)}, copy` })).toBeVisible();
  await page
    .getByRole('radiogroup', { name: 'View' })
    .getByText(/^Accounts/)
    .click();
  await expect(group).toHaveValue('g'.repeat(120));
});

test.describe('a fault locks nobody out', () => {
  test('a spoiled book leaves the others be, says what it is, and its parts can be saved', async ({
    page,
  }) => {
    await openApp(page);
    await newBook(page, 'Whole');
    await saved(page);
    await choose(page, /^Pellow/);
    await saved(page);
    expect(await spoil(page, /^(save|whole):demo-/, 42)).toBeGreaterThan(1);
    await page.reload();
    await expect(page.getByRole('button', { name: 'Book: Whole' })).toBeVisible();
    await choose(page, /^A book that cannot be read/);
    await expect(page.getByText(/cannot be opened: what is kept of it cannot be read/)).toBeVisible();
    const download = page.waitForEvent('download');
    await page.getByRole('button', { name: 'Save what is kept as a file' }).click();
    expect((await download).suggestedFilename()).toMatch(/\.parts\.json$/);
    await page.getByRole('button', { name: 'Delete it for good' }).click();
    await menu(page);
    await expect(page.getByRole('menuitem', { name: /cannot be read/ })).toHaveCount(0);
  });

  test('an older state that opens instead of a newer one says so; lost entries are named', async ({
    page,
  }) => {
    await openApp(page);
    await newBook(page, 'Older');
    await takeIn(page, {
      name: 'l.csv',
      text: 'Date,Ref,Account,Debit,Credit\n2025-01-05,1,Bank,10,\n2025-01-05,1,Sales,,10\n',
    });
    await saved(page);
    await choose(page, /^Rename/);
    await page.getByLabel('Name', { exact: true }).fill('Newer');
    await page.getByRole('button', { name: 'Rename', exact: true }).click();
    await saved(page);
    const newest = await page.evaluate(
      () =>
        new Promise<string>((resolve) => {
          const open = indexedDB.open('tellan');
          open.onsuccess = () => {
            const keys = open.result.transaction('books').objectStore('books').getAllKeys();
            keys.onsuccess = () =>
              resolve(
                (keys.result as string[])
                  .filter((k) => /^save:k/.test(k))
                  .sort()
                  .at(-1)!,
              );
          };
        }),
    );
    await spoil(page, new RegExp(`^${newest}$`), { nothing: true });
    await page.reload();
    await expect(page.getByText('This is not the last state of the book')).toBeVisible();
    await expect(page.getByRole('button', { name: 'Book: Older' })).toBeVisible();
    await spoil(page, /^block:k[^:]+:/, 'gone');
    await page.reload();
    await expect(page.getByText(/Opened without the entries of “l\.csv”/)).toBeVisible();
    await page.getByRole('button', { name: 'I have seen it' }).click();
    await expect(page.getByText(/Opened without/)).toHaveCount(0);
  });

  test.describe('a screen', () => {
    test.use({ allowedErrors: [/./] });
    test('that breaks takes only itself down', async ({ page }) => {
      await openApp(page);
      await page.evaluate(() => {
        const Real = window.ResizeObserver;
        window.ResizeObserver = class extends Real {
          constructor(callback: ResizeObserverCallback) {
            if ((window as unknown as { broken: boolean }).broken) throw new Error('it broke');
            super(callback);
          }
        };
        (window as unknown as { broken: boolean }).broken = true;
      });
      await page.getByRole('navigation', { name: 'Stages' }).getByRole('link', { name: 'Budget' }).click();
      await expect(page.getByRole('heading', { name: 'This screen stopped' })).toBeVisible();
      await expect(page.getByText('it broke')).toBeVisible();
      const download = page.waitForEvent('download');
      await page.getByRole('button', { name: 'Save the book as a file' }).click();
      await download;
      await page.evaluate(() => ((window as unknown as { broken: boolean }).broken = false));
      await stage(page, 'Variance');
      await expect(page.getByRole('heading', { name: /stopped/ })).toHaveCount(0);
      await newBook(page, 'Other');
    });
  });

  test('a book whose drawing did not come to an end is shown only when asked for', async ({ page }) => {
    await openApp(page, '/budget');
    await type(page, 'Cleaning', '321');
    await saved(page);
    await page.evaluate(async () => {
      const open = indexedDB.open('tellan');
      await new Promise((done) => (open.onsuccess = done));
      const get = open.result.transaction('books').objectStore('books').get('lastOpened');
      await new Promise((done) => (get.onsuccess = done));
      localStorage.setItem('tellan-drawing', get.result as string);
    });
    await page.reload();
    await expect(page.getByRole('heading', { name: /was not shown to the end/ })).toBeVisible();
    await page.getByRole('button', { name: 'Show it one change earlier' }).click();
    await expect(cell(page, 'Cleaning', 0)).not.toHaveText('321');
    await page.getByRole('button', { name: 'Redo' }).click();
    await expect(cell(page, 'Cleaning', 0)).toHaveText('321');
    await saved(page);
    await page.reload();
    await expect(cell(page, 'Cleaning', 0)).toHaveText('321');
  });

  test('a book file with a month that does not exist opens without that budget; a broken one is refused with the place', async ({
    page,
  }) => {
    await openApp(page);
    const file = await page.evaluate(async () => (await fetch('/demo/pellow-creek.tellan.json')).text());
    const book = JSON.parse(file);
    book.book.id = 'kx';
    book.book.name = 'Thirteen';
    book.book.budgets[1].first = '2027-13';
    const give = (name: string, value: unknown) =>
      page.getByLabel('Book file').setInputFiles({
        name,
        mimeType: 'application/json',
        buffer: Buffer.from(JSON.stringify(value)),
      });
    await give('thirteen.json', book);
    await expect(page.getByRole('button', { name: 'Book: Thirteen' })).toBeVisible();
    await expect(page.getByText(/Opened without the budget/)).toContainText('no such period');
    for (const name of ['Budget', 'Variance', 'Books'] as const) await stage(page, name);
    book.book.accounts[3].name = 'x'.repeat(300);
    await give('long.json', book);
    await expect(page.getByText(/long\.json was not opened.*accounts\.3\.name/)).toBeVisible();
    await give('old.json', {
      ...book,
      book: { format: 'tellan.book', version: 2, budgets: [{ lines: { a: null } }] },
    });
    await expect(page.getByText(/old\.json was not opened/)).toBeVisible();
  });
});

test.describe('nothing is lost', () => {
  test('a storage that is deleted under the app gets all of the book again', async ({ page }) => {
    await openApp(page, '/budget');
    await page.evaluate(
      () =>
        new Promise((done) => {
          const gone = indexedDB.deleteDatabase('tellan');
          gone.onsuccess = gone.onerror = gone.onblocked = done;
        }),
    );
    await type(page, 'Cleaning', '4321');
    await saved(page);
    await page.reload();
    await expect(cell(page, 'Cleaning', 0)).toHaveText('4321'.replace('4', '4,'));
    await expect(page.getByRole('button', { name: /checks hold/ })).toBeVisible();
  });

  test('what the storage refused survives another book, and is saved when it takes writes again', async ({
    page,
  }) => {
    await openApp(page);
    await newBook(page, 'Other');
    await choose(page, /^Pellow/);
    await stage(page, 'Budget');
    await page.evaluate(() => {
      const put = IDBObjectStore.prototype.put;
      (window as unknown as { mend: () => void }).mend = () => (IDBObjectStore.prototype.put = put);
      IDBObjectStore.prototype.put = () => {
        throw new DOMException('The quota has been exceeded.', 'QuotaExceededError');
      };
    });
    await type(page, 'Cleaning', '888');
    await expect(cell(page, 'Cleaning', 0)).toHaveText('888');
    await expect(page.getByRole('alert').filter({ hasText: 'Not saved' })).toBeVisible();
    await choose(page, /^Other/);
    await expect(page.getByRole('alert').filter({ hasText: 'Not saved yet: Pellow' })).toBeVisible();
    await choose(page, /^Pellow/);
    await stage(page, 'Budget');
    await expect(cell(page, 'Cleaning', 0)).toHaveText('888');
    await page.evaluate(() => (window as unknown as { mend: () => void }).mend());
    await saved(page);
    await expect(page.getByRole('alert').filter({ hasText: 'Not saved' })).toHaveCount(0);
    await page.reload();
    await expect(cell(page, 'Cleaning', 0)).toHaveText('888');
  });

  test('a book taken over takes along what was typed a moment ago; one in another tab is not deleted', async ({
    page,
    context,
  }) => {
    await openApp(page, '/budget');
    const second = await context.newPage();
    await second.setViewportSize(TALL);
    await openApp(second, '/budget');
    await expect(second.getByText('This book is open in another tab')).toBeVisible();
    await choose(second, /^Delete/);
    await second.getByLabel(/Type the name/).fill('Pellow Creek Boatyard Co-op');
    await second.getByRole('button', { name: 'Delete', exact: true }).click();
    await expect(second.getByText(/worked on in another tab/)).toBeVisible();
    await type(page, 'Cleaning', '765');
    await second.getByRole('button', { name: 'Work on it here' }).click();
    await expect(second.getByText('This book is open in another tab')).toHaveCount(0);
    await expect(cell(second, 'Cleaning', 0)).toHaveText('765');
    await expect(page.getByText('This book is open in another tab')).toBeVisible();
  });
});

test('a book goes to and fro between tabs as often as it is asked for; one taken from a tab that hangs follows there', async ({
  page,
  context,
}) => {
  test.slow();
  const readOnly = (p: Page) => p.getByText('This book is open in another tab');
  await openApp(page, '/budget');
  const second = await context.newPage();
  await second.setViewportSize(TALL);
  await openApp(second, '/budget');
  const tabs = [page, second];
  for (let n = 0; n < 6; n++) {
    const [from, to] = [tabs[n % 2]!, tabs[(n + 1) % 2]!];
    await type(from, 'Cleaning', `${700 + n}`);
    await to.getByRole('button', { name: 'Work on it here' }).click();
    await expect(readOnly(from)).toBeVisible();
    await expect(readOnly(to)).toHaveCount(0);
    await expect(cell(to, 'Cleaning', 0)).toHaveText(`${700 + n}`);
  }
  // The tab that holds it answers nothing for longer than it is waited for, on a slow machine too.
  await page.evaluate(() => {
    setTimeout(() => {
      const until = Date.now() + 30_000;
      while (Date.now() < until);
    });
  });
  await second.getByRole('button', { name: 'Work on it here' }).click();
  await expect(second.getByText('The other tab does not answer')).toBeVisible({ timeout: 25_000 });
  await second.getByRole('button', { name: 'Take it over without them' }).click();
  await expect(second.getByText('The other tab does not answer')).toHaveCount(0);
  await expect(readOnly(second)).toHaveCount(0);
  await type(second, 'Cleaning', '811');
  await expect(cell(second, 'Cleaning', 0)).toHaveText('811');
  // It answers again when it is done.
  await page.evaluate(() => undefined);
  await expect(readOnly(page)).toBeVisible();
  await expect(cell(page, 'Cleaning', 0)).toHaveText('811');
  await page.bringToFront();
  await cell(page, 'Cleaning', 0).click();
  await page.keyboard.type('9');
  await expect(page.getByText('This book is being worked on in another tab.')).toBeVisible();
});

test.describe('the doors', () => {
  test('every answer says what it may do, also those that are not there', async ({ page, request }) => {
    const asked = new Set<string>();
    page.on('response', (r) => asked.add(new URL(r.url()).pathname));
    await openApp(page);
    const chunk = [...asked].find((p) => p.startsWith('/_next/static/') && p.endsWith('.js'))!;
    for (const path of [
      '/books',
      '/nope',
      '/demo/pellow-creek.tellan.json',
      '/demo/nope',
      '/schema/tellan-book.schema.json',
      '/icon.svg',
      '/feed/v1/company',
      '/feed/v1/nope',
      chunk,
      '/_next/static/nope.js',
    ]) {
      const headers = (await request.get(path)).headers();
      expect([path, headers['x-content-type-options'], headers['referrer-policy']]).toEqual([
        path,
        'nosniff',
        'no-referrer',
      ]);
      expect([path, headers['content-security-policy']]).toEqual([
        path,
        expect.stringContaining('default-src'),
      ]);
    }
  });

  test.describe('a worker', () => {
    test.use({
      allowedErrors: [/Content Security Policy|Refused to connect|Fetch API cannot load|Connecting to/],
    });
    test('reaches no other address', async ({ page }) => {
      let reached = 0;
      const other = createServer((_, answer) => {
        reached++;
        answer.setHeader('access-control-allow-origin', '*');
        answer.end('x');
      });
      await new Promise<void>((done) => other.listen(0, '127.0.0.1', done));
      const { port } = other.address() as AddressInfo;
      await openApp(page);
      await newBook(page, 'W');
      const started = page.waitForEvent('worker');
      await page.getByLabel('Ledger file').setInputFiles({
        name: 'l.csv',
        mimeType: 'text/csv',
        buffer: Buffer.from('Date,Ref,Account,Debit,Credit\n2025-01-05,1,Bank,10,\n2025-01-05,1,Sales,,10\n'),
      });
      const worker = await started;
      await expect(page.getByRole('heading', { name: /Proof/ })).toContainText('everything ties');
      const ask = (url: string) =>
        worker.evaluate(
          (to) =>
            fetch(to, { mode: 'no-cors' }).then(
              () => 'reached',
              () => 'refused',
            ),
          url,
        );
      expect(await ask(`http://127.0.0.1:${port}/`)).toBe('refused');
      expect(reached).toBe(0);
      other.close();
    });
  });

  test('the feed takes JSON from its own pages only, and a cursor that is none is an error', async ({
    request,
  }) => {
    const post = (headers: Record<string, string>, data: string) =>
      request.post('/feed/v1/settings', { headers, data }).then((r) => r.status());
    expect(await post({ 'content-type': 'text/plain' }, '{"failNext":1}')).toBe(415);
    expect(await post({ 'content-type': 'application/json', origin: 'http://elsewhere.invalid' }, '{}')).toBe(
      403,
    );
    expect(await post({ 'content-type': 'application/json', origin: 'null' }, '{}')).toBe(403);
    expect(await post({ 'content-type': 'application/json' }, '{"failNext":"x"}')).toBe(400);
    expect(await post({ 'content-type': 'application/json' }, '{}')).toBe(200);
    const get = (path: string) => request.get(`/feed/v1/${path}`).then((r) => r.status());
    for (const bad of [
      'cursor?after=',
      'cursor?after=2026-02-30',
      'cursor?after=x',
      'entries?since=-1',
      'entries?since=1e3',
    ])
      expect([bad, await get(bad)]).toEqual([bad, 400]);
    expect(await get('entries?since=999999999')).toBe(409);
    expect(await get('cursor?after=2026-02-28')).toBe(200);
  });
});

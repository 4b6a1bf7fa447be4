import { parseBookFile } from '@/core/exchange';
import { createMemory, makeGround, toldOf } from '@/core/ground';
import type { Minor } from '@/core/money';
import { cellOf, comparedWith, layoutReport } from '@/core/report';
import { plainWords, STANDARD } from '@/core/test/variance';
import { moneyFormat } from './format';
import { toldComment } from './toldWords';
import { demoBookFile } from '@/demo/demoBook';

/* The story of the demo's year, as its entries tell it. */

async function demo() {
  const file = parseBookFile(await demoBookFile());
  if (!file.ok) throw new Error('the demo does not open');
  const { book, blocks } = file;
  return makeGround(book, new Map([...blocks.values()].map((b) => [b.id, b])), createMemory());
}

test('every flagged line says why, in parts that add up', async () => {
  const ground = await demo();
  const { book, calendar } = ground;
  const july = calendar.firstOfYear(2027);
  const said = new Map<string, string>();
  for (let month = july; month < july + 4; month++) {
    const compared = comparedWith(ground, month, STANDARD, null);
    const { table } = layoutReport({ ground, layout: STANDARD, month, compared, words: plainWords() });
    for (const row of table.rows) {
      if (!row.account || !row.flagged) continue;
      const account = book.accounts.find((a) => a.id === row.account)!;
      const difference = cellOf(table, row, 'monthDiff') as Minor;
      const told = toldOf(ground, account, month, difference, compared.comparison, 'plan');
      const sum = told.parts.reduce((t, p) => t + p.amount, 0);
      expect([account.name, sum]).toEqual([account.name, difference]);
      const basis = told.basis === null ? null : calendar.period(told.basis);
      said.set(`${month - july} ${account.name}`, toldComment(told, moneyFormat(book), basis));
    }
  }
  expect(said.size).toBeGreaterThan(12);
  // Three paydays in July, and the one that August lacks for it.
  expect(said.get('0 Yard wages')).toMatch(/^Payroll came 3 times, where the plan has 2 \(\+10,993\)\./);
  expect(said.get('1 Yard wages')).toMatch(
    /^Payroll came twice, where the plan has 3; one stands on .*Jul.* instead/,
  );
  // The delivery that belongs to the workshop, and the tariff since July.
  expect(said.get('1 Office supplies')).toMatch(/^Harrow Marine Supply: 1,840, beyond every entry/);
  expect(said.get('1 Office supplies')).toMatch(/By activity, going by Aug 2025: Workshop \+1,840/);
  expect(said.get('3 Power and water')).toMatch(
    /^Estuary Power on .*Oct.*: 1,583, where the plan has 893 \(\+690\)/,
  );
  // The large refits slipped: one charter boat apart, October's jobs are small.
  expect(said.get('3 Repair and refit jobs')).toMatch(
    /^10 entries of 1,369 on average, where the plan has 2,800 \(−14,313\)\. Heron Charter Line: 9,800, .*\(\+7,000\)\.$/,
  );
});

import ExcelJS from 'exceljs';
import { HyperFormula } from 'hyperformula';
import { parseBookFile } from '@/core/exchange';
import { reportsXlsx } from '@/core/exchange/reportXlsx';
import { aheadOf, makeGround, reckoned, triedOf, type Ground } from '@/core/ground';
import { minor } from '@/core/money';
import { isProfitAndLoss, naturalSign, type FlowClass } from '@/core/model';
import { comparedWith, layoutReport, shippedLayout, STATEMENT_LAYOUTS } from '@/core/report';
import { plainWords } from '@/core/test/variance';
import { demoBookFile } from './demoBook';

/* What must hold of the three statements in every period, closed or ahead, reckoned from the demo company's book. */

let ground: Ground;
beforeAll(async () => {
  const read = parseBookFile(await demoBookFile());
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  ground = makeGround(read.book, new Map(read.blocks.map((b) => [b.id, b])));
});

function tableOf(kind: keyof typeof STATEMENT_LAYOUTS, flowClasses?: Record<string, FlowClass>) {
  const own = flowClasses ? { ...ground, book: { ...ground.book, flowClasses } } : ground;
  const layout = { ...shippedLayout(STATEMENT_LAYOUTS[kind])!, filter: 'all' as const };
  const { last, start } = aheadOf(own, null)!;
  const ruler = { first: start - 15, last };
  const compared = comparedWith(own, start, layout, null);
  const { table } = layoutReport({ ground: own, layout, month: start, compared, words: plainWords(), ruler });
  const months = last - ruler.first + 1;
  return {
    table,
    row: (key: string) =>
      table.rows
        .find((r) => r.key === key)!
        .cells.slice(0, months)
        .map(Number),
    months,
  };
}

test('profit leads to the bank: cash flow ends where the balance sheet’s banks stand, in both forms', () => {
  const [flow, direct, balance] = [tableOf('flow'), tableOf('direct'), tableOf('balance')];
  const banks = ground.book.accounts.filter((a) => a.kind === 'bank').map((a) => balance.row(a.id));
  const bank = banks[0]!.map((_, i) => banks.reduce((t, b) => t + b[i]!, 0));
  expect(flow.row('flow-closing')).toEqual(bank);
  expect(direct.row('flow-closing')).toEqual(bank);
  expect(direct.row('bankChange')).toEqual(flow.row('bankChange'));
  expect(direct.row('operating')).toEqual(flow.row('operating'));
  // The last closed month’s customers are the ledger’s, the next month’s the forecast’s.
  expect(direct.row('flow-customers')[15]).toBeGreaterThan(0);
  expect(direct.row('flow-customers')[16]).toBeGreaterThan(0);
  // The whole range begins with its first month, ends with its last, and adds up the changes.
  const whole = (key: string) => Number(flow.table.rows.find((r) => r.key === key)!.cells.at(-1));
  const sum = flow.row('bankChange').reduce((a, b) => a + b);
  expect([whole('flow-opening'), whole('bankChange'), whole('flow-closing')]).toEqual([
    flow.row('flow-opening')[0],
    sum,
    flow.row('flow-closing').at(-1),
  ]);
  // Each month begins where the one before ended, and moves by its change.
  const [opening, change, closing] = ['flow-opening', 'bankChange', 'flow-closing'].map(flow.row);
  closing!.forEach((c, i) => {
    expect(opening![i]! + change![i]!).toBe(c);
    if (i > 0) expect(opening![i]).toBe(closing![i - 1]);
  });
});

test('the balance sheet balances, and what is not yet in equity grows by the profit of each month', () => {
  const [profit, balance] = [tableOf('profit'), tableOf('balance')];
  const rows = ['netAssets', 'total-equity', 'outsideEquity'].map(balance.row);
  rows[0]!.forEach((net, i) => expect(net).toBe(rows[1]![i]! + rows[2]![i]!));
  const result = profit.row('netProfit');
  const { balances, start } = aheadOf(ground, null)!;
  const equity = ground.book.accounts.filter((a) => a.kind === 'equity');
  for (let i = 1; i < balance.months; i++) {
    // What owners put in or took out; a year's end moves results within equity alone.
    const paidIn = equity.reduce((t, a) => t - (balances.movement(a.id, start - 15 + i) ?? 0), 0);
    expect(rows[0]![i]! - rows[0]![i - 1]!).toBe(result[i]! + paidIn);
  }
});

test('profit and loss ahead is the budget’s, month by month', () => {
  const profit = tableOf('profit');
  const { view, start, last, balances } = aheadOf(ground, null)!;
  const plans = view.plans.map((p) => ({ periods: p.periods, whole: reckoned(ground, p.budget) }));
  const plannedAt = (account: string, period: number) =>
    plans.reduce((t, { periods, whole }) => {
      const i = period - whole.facts.periods[0]!.index;
      return periods.some((x) => x.index === period) ? t + (whole.amounts(account)?.[i] ?? 0) : t;
    }, 0);
  const closed = profit.months - (last - start);
  for (const a of ground.book.accounts.filter((x) => isProfitAndLoss(x.kind) && !/bad debt/i.test(x.name)))
    for (let p = start + 1; p <= last; p++) {
      const planned = plannedAt(a.id, p);
      expect([a.name, p - start, Math.abs(balances.movement(a.id, p) ?? 0)]).toEqual([
        a.name,
        p - start,
        Math.abs(planned),
      ]);
      // What is never paid joins the bad debts' own line, and no other.
      expect(profit.row(a.id)[closed + p - start - 1]).toBe(planned);
    }
});

test('wherever accounts are said to belong, the statement still ends at the bank', () => {
  const classes = Object.fromEntries(
    ground.book.accounts.flatMap((a, i) =>
      a.kind === 'bank'
        ? []
        : [[a.id, (['operating', 'adjustment', 'investing', 'financing'] as const)[i % 4]!] as const],
    ),
  );
  const [plain, said] = [tableOf('flow'), tableOf('flow', classes)];
  expect(said.row('bankChange')).toEqual(plain.row('bankChange'));
  expect(said.row('investing')).not.toEqual(plain.row('investing'));
});

test('all three leave as one workbook that ties by itself: a spreadsheet engine reckons it to our figures', async () => {
  const tables = (['profit', 'balance', 'flow'] as const).map((k) => ({ ...tableOf(k).table, title: k }));
  const wb = new ExcelJS.Workbook();
  await wb.xlsx.load((await reportsXlsx(tables)).buffer as ArrayBuffer);
  const sheets = Object.fromEntries(
    wb.worksheets.map((ws) => {
      const rows: (string | number | null)[][] = [];
      ws.eachRow({ includeEmpty: true }, (row, r) => {
        rows[r - 1] = Array.from({ length: ws.columnCount }, (_, c) => {
          const { value } = row.getCell(c + 1);
          return value && typeof value === 'object' && 'formula' in value
            ? `=${(value as { formula: string }).formula}`
            : ((value as string | number | null) ?? null);
        });
      });
      return [ws.name, rows];
    }),
  );
  const engine = HyperFormula.buildFromSheets(sheets, { licenseKey: 'gpl-v3' });
  let linked = 0;
  tables.forEach((table, sheet) =>
    table.rows.forEach((row, r) =>
      row.cells.forEach((cell, c) => {
        if (cell === null || row.kind === 'section') return;
        const theirs = Number(engine.getCellValue({ sheet, row: r + 5, col: c + 2 }));
        expect([table.title, row.label, c, Math.round(theirs * 100)]).toEqual([
          table.title,
          row.label,
          c,
          cell,
        ]);
        if (String(sheets[table.title]![r + 5]![c + 2]).includes("'!")) linked++;
      }),
    ),
  );
  engine.destroy();
  // Each month’s profit and closing bank of the cash flow come from the other two sheets.
  expect(linked).toBeGreaterThan(40);
});

test('one amount is changed, three statements move: what it would move is told, and nothing is changed', () => {
  const budget = ground.book.budgets.findLast((b) => b.state === 'draft')!;
  const { start, view } = aheadOf(ground, budget)!;
  const [own] = [...view.lines.values()].filter(({ line }) => line.account.name === 'Repair and refit jobs');
  const period = start + 2;
  const was = own!.line.amounts[1]!;
  const cell = {
    account: own!.line.account.id,
    segment: null,
    period: ground.calendar.period(period).id,
    value: minor(was - 120_000),
  };
  const command = { type: 'setCells', budget: own!.budget.id, how: 'typed', cells: [cell] } as const;
  const tried = triedOf(ground, budget, command, { first: start + 1, last: start + 12 });
  if (!tried.ok) throw new Error(tried.code);
  const { moves } = tried;
  expect(moves[0]!.period).toBe(period);
  for (const m of moves) {
    // Assets less liabilities move by what the profits so far moved: the balance sheet balances in every month.
    const assets = m.accounts.reduce<number>(
      (t, { account, amount }) => t + naturalSign(account.kind) * amount,
      m.bank,
    );
    const profits = moves.filter((x) => x.period <= m.period).reduce<number>((t, x) => t + x.profit, 0);
    expect(assets).toBe(profits);
  }
  // The invoices are not made: profit at once, money when it would have come.
  expect(moves[0]!.profit).toBeLessThan(0);
  expect(Math.abs(moves[0]!.bank)).toBeLessThan(Math.abs(moves[0]!.profit));
  expect(moves.at(-1)!.bank).toBeLessThan(0);
  expect(aheadOf(ground, budget)!.balances.movement(cell.account, period)).toBe(-was);
  expect(triedOf(ground, null, { ...command, budget: 'gone' }, { first: start, last: start })).toMatchObject({
    ok: false,
  });
});

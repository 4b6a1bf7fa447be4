import ExcelJS from 'exceljs';
import { HyperFormula } from 'hyperformula';
import { parseBookFile } from '@/core/exchange';
import { reportsXlsx } from '@/core/exchange/reportXlsx';
import {
  aheadOf,
  madeAhead,
  makeGround,
  outlookAt,
  plannedBooks,
  reckoned,
  triedOf,
  type Ground,
} from '@/core/ground';
import { day, toDayNumber } from '@/core/calendar';
import { minor } from '@/core/money';
import { isProfitAndLoss, naturalSign, type FlowClass, type RowOf } from '@/core/model';
import { comparedWith, layoutReport, scheduleReports, shippedLayout, STATEMENT_LAYOUTS } from '@/core/report';
import { SCHEDULE_KINDS } from '@/core/schedule';
import { plainWords } from '@/core/test/variance';
import { demoBookFile } from './demoBook';

/* What must hold of the three statements in every period, closed or ahead, reckoned from the demo company's book. */

let ground: Ground;
const same = <K extends string>(keys: readonly K[]) =>
  Object.fromEntries(keys.map((k) => [k, k])) as Readonly<Record<K, K>>;
const PLAIN_SCHEDULES = {
  kinds: same(SCHEDULE_KINDS),
  lines: same([
    'pay',
    'oncost',
    'once',
    'cost',
    'drawn',
    'interest',
    'principal',
    'owed',
    'bought',
    'writtenOff',
    'gain',
    'book',
    'part',
    'left',
    'profit',
    'losses',
    'tax',
    'owners',
  ] as const),
  total: 'FY27',
  subtitle: '',
};
beforeAll(async () => {
  const read = parseBookFile(await demoBookFile());
  if (!read.ok) throw new Error(JSON.stringify(read.issue));
  ground = makeGround(read.book, new Map(read.blocks.map((b) => [b.id, b])));
});

function tableOf(
  kind: keyof typeof STATEMENT_LAYOUTS,
  flowClasses?: Record<string, FlowClass>,
  chosen: string | null = null,
) {
  const own = flowClasses ? { ...ground, book: { ...ground.book, flowClasses } } : ground;
  const layout = { ...shippedLayout(STATEMENT_LAYOUTS[kind])!, filter: 'all' as const };
  const { last, start } = aheadOf(own, null)!;
  const ruler = { first: start - 15, last };
  const compared = comparedWith(own, start, layout, chosen);
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

test('the launch that is sold in April 2027 stands in investing with the 4,500 that it brings, in both forms', () => {
  const { calendar, book } = ground;
  const { start } = aheadOf(ground, null)!;
  const april = calendar.indexOfDay(toDayNumber(day('2027-04-20'))) - (start - 15);
  const revision = book.budgets.at(-1)!;
  const boats = revision.schedules.find((r) => r.name === 'Launch Teal')! as RowOf<'asset'>;
  // In the same month another is bought and paid for.
  const bought = revision.schedules.flatMap((r) =>
    r.kind === 'asset' && r.bought.startsWith('2027-04') && r.account === boats.account ? [r.cost] : [],
  );
  for (const kind of ['flow', 'direct'] as const) {
    const { row } = tableOf(kind, undefined, revision.id);
    expect(row(`flow ${boats.account}`)[april]).toBe(450_000 - bought[0]!);
    expect(row('investing')[april]).toBe(450_000 - bought[0]!);
  }
  // Of 21,000, 14,600 and nine months of 200 are written off: what operations take back is a loss of 100, and no more.
  const { row } = tableOf('flow', undefined, revision.id);
  expect(row(`flow ${boats.sold!.gain!} gains`)[april]).toBe(10_000);
  const written = row(`flow ${boats.accumulated!}`);
  expect([written[april - 1]! > 0, written[april]! > 0]).toEqual([true, true]);
  // The launch’s 200 a month are gone, the new one’s 500 begin.
  expect(written[april]! - written[april - 1]!).toBe(50_000 - 20_000);
});

test('the balance sheet balances, and what is not yet in equity grows by the profit of each month', () => {
  const [profit, balance] = [tableOf('profit'), tableOf('balance')];
  const rows = ['netAssets', 'total-equity', 'total-assets', 'liabilitiesAndEquity'].map(balance.row);
  rows[0]!.forEach((net, i) => expect(net).toBe(rows[1]![i]));
  rows[2]!.forEach((assets, i) => expect(assets).toBe(rows[3]![i]));
  const result = profit.row('netProfit');
  const { balances, start } = aheadOf(ground, null)!;
  const equity = ground.book.accounts.filter((a) => a.kind === 'equity');
  for (let i = 1; i < balance.months; i++) {
    // What owners put in or took out; a year's end moves results within equity alone.
    const paidIn = equity.reduce((t, a) => t - (balances.movement(a.id, start - 15 + i) ?? 0), 0);
    expect([i, rows[0]![i]! - rows[0]![i - 1]!]).toEqual([i, result[i]! + paidIn]);
  }
});

test('profit and loss ahead is the outlook of the budget, month by month, bad debts and interest too', () => {
  const profit = tableOf('profit');
  const { view, start, last, balances } = aheadOf(ground, null)!;
  const plans = view.plans.map((p) => ({
    periods: p.periods,
    segments: p.budget.segments,
    whole: reckoned({ ...ground, made: madeAhead }, p.budget),
  }));
  const outlook = (account: string, period: number) =>
    plans.reduce(
      (t, { periods, whole, segments }) =>
        periods.some((x) => x.index === period) ? t + (outlookAt(whole, account, segments, period) ?? 0) : t,
      0,
    );
  const closed = profit.months - (last - start);
  for (const a of ground.book.accounts.filter((x) => isProfitAndLoss(x.kind)))
    for (let p = start + 1; p <= last; p++) {
      const expected = outlook(a.id, p);
      expect([a.name, p - start, Math.abs(balances.movement(a.id, p) ?? 0)]).toEqual([
        a.name,
        p - start,
        Math.abs(expected),
      ]);
      expect(profit.row(a.id)[closed + p - start - 1]).toBe(expected);
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
  const draft = ground.book.budgets.findLast((b) => b.state === 'draft')!;
  const tables = [
    ...(['profit', 'balance', 'flow'] as const).map((k) => ({ ...tableOf(k).table, title: k })),
    ...scheduleReports(ground, draft, PLAIN_SCHEDULES),
  ];
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
  // Each month’s profit of the cash flow, and each month’s result in equity after the first, come from the profit and loss.
  expect(linked).toBeGreaterThan(40);
  // Beneath the rows stands what must come to nothing: assets against what they are owed to, the bank against the bank.
  const checks = Object.values(sheets).flatMap((rows, sheet) =>
    rows.flatMap((row, r) =>
      String(row[1]).startsWith('Check: ')
        ? row.slice(2).map((_, c) => [row[1], engine.getCellValue({ sheet, row: r, col: c + 2 })] as const)
        : [],
    ),
  );
  engine.destroy();
  expect(new Set(checks.map(([name]) => name))).toEqual(
    new Set(['Check: Liabilities and equity', 'Check: Bank at the end']),
  );
  const told = checks.filter(([, value]) => typeof value === 'number');
  expect(told.length).toBeGreaterThan(40);
  expect(told.filter(([, value]) => value !== 0)).toEqual([]);
  // The bank's end is opening and change, the result the one before and the profit.
  const formulas = (name: string) =>
    Object.values(sheets).flatMap((rows) =>
      rows.filter((row) => row[1] === name).flatMap((row) => row.slice(3, 6)),
    );
  for (const f of formulas('Bank at the end')) expect(f).toMatch(/^=[A-Z]+\d+\+[A-Z]+\d+$|^=SUM\(/);
  expect(formulas('Result not yet in equity').some((f) => /'!/.test(String(f)))).toBe(true);
});

test('schedules leave by month, tie to the lines that they make, and say nothing of anyone’s pay', () => {
  const draft = ground.book.budgets.findLast((b) => b.state === 'draft')!;
  const reports = scheduleReports(ground, draft, PLAIN_SCHEDULES);
  expect(reports.map((r) => r.title)).toEqual(['staff', 'loan', 'asset', 'incomeTax', 'equity']);
  const whole = reckoned(ground, draft);
  const [staff, loans, assets] = reports;
  const named = draft.schedules.flatMap((r) => (r.kind === 'staff' ? [r.name] : []));
  expect(JSON.stringify(staff)).not.toMatch(new RegExp(named.join('|')));
  const wages = staff!.rows.find((r) => r.label === 'Yard wages')!;
  expect(wages.cells.slice(0, 12)).toEqual(whole.amounts(wages.key));
  const sumOf = (table: typeof staff, label: string) =>
    Array.from({ length: 12 }, (_, i) =>
      table!.rows.reduce((t, r) => (r.label === label ? t + Number(r.cells[i]) : t), 0),
    );
  const id = (name: string) => ground.book.accounts.find((a) => a.name === name)!.id;
  expect(sumOf(assets, 'writtenOff')).toEqual(whole.amounts(id('Depreciation')));
  const interest = ['Interest expense on hoist loan', 'Interest on launch loan'].map((n) =>
    whole.amounts(id(n))!,
  );
  expect(sumOf(loans, 'interest')).toEqual(interest[0]!.map((v, i) => v! + interest[1]![i]!));
  // What is owed at the year's end is what the balance sheet has.
  const ahead = aheadOf(ground, draft)!;
  const owed = ['Boat hoist loan', 'Launch loan'].reduce(
    (t, n) => t - ahead.balances.balance(id(n), ahead.start + 8, true),
    0,
  );
  expect(sumOf(loans, 'owed')[11]).toBe(owed);
});

test('what is current and what is not come to the whole, and twelve payments of the hoist are due within a year', () => {
  const balance = tableOf('balance');
  for (const [section, name] of [
    ['assets', 'assets'],
    ['liabilities', 'liabilities'],
  ] as const) {
    const [current, other, all] = [
      `group-${section}-current ${name}`,
      `group-${section}-non-current ${name}`,
      `total-${section}`,
    ].map(balance.row);
    expect(current!.map((v, i) => v + other![i]!)).toEqual(all);
  }
  const hoist = ground.book.accounts.find((a) => a.name === 'Boat hoist loan')!.id;
  const { balances, start } = aheadOf(ground, null)!;
  const due = balance.row(`due ${hoist}`);
  // Of June 2026, the twelfth of the months shown: what stands there less what stands a year later.
  expect(due[11]).toBe(balances.balance(hoist, start + 8, true) - balances.balance(hoist, start - 4, true));
});

test('beside the approved budget: its months as they were approved, and closing balances kept with it', () => {
  const approved = ground.book.budgets.find((b) => b.state === 'approved')!;
  const planned = plannedBooks(ground, approved);
  const first = aheadOf(ground, null)!.start - 3;
  for (const a of ground.book.accounts)
    for (let i = 0; i < 12; i++) {
      const line = approved.approved!.lines.find((l) => l.account === a.id);
      if (isProfitAndLoss(a.kind)) {
        const moved = planned.balances.movement(a.id, first + i);
        expect([a.name, i, moved === null ? null : naturalSign(a.kind) * moved || 0]).toEqual([
          a.name,
          i,
          line?.amounts[i] ?? null,
        ]);
      } else
        expect(naturalSign(a.kind) * planned.balances.balance(a.id, first + i, true) || 0).toBe(
          approved.approved!.cash!.closing[a.id]?.[i] ?? 0,
        );
    }
  // Its own cash flow ends at its own bank.
  const banks = ground.book.accounts.filter((a) => a.kind === 'bank');
  const flows = (['customers', 'suppliers', 'payroll', 'taxes', 'loans', 'owners', 'other'] as const).map(
    (f) => planned.flows(f, first + 2),
  );
  expect(flows.reduce<number>((t, v) => t + (v ?? 0), 0)).toBe(
    banks.reduce((t, a) => t + planned.balances.movement(a.id, first + 2)!, 0),
  );
  // Its first month goes on from where the ledger stood.
  expect(planned.balances.movement(banks[0]!.id, first)).toBe(
    approved.approved!.cash!.closing[banks[0]!.id]![0]! -
      ground.balances.balance(banks[0]!.id, first - 1, true),
  );
  // A draft says nothing of balances in months that are closed.
  const draft = ground.book.budgets.findLast((b) => b.state === 'draft')!;
  expect([first, first + 3, first + 4].map((p) => plannedBooks(ground, draft).stands(p))).toEqual([
    false,
    false,
    true,
  ]);
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

import { toDayNumber, type Day } from '@/core/calendar';
import { balancesOf } from '@/core/ledger';
import { minor, percent } from '@/core/money';
import type { TaxScheme } from '@/core/model';
import { account, blockOf, calendar } from '@/core/test/build';
import {
  atOnce,
  byMonth,
  dayText,
  NEW_YEAR,
  onAccount,
  planned,
  projectionOf,
  written,
} from '@/core/test/cash';
import {
  causesIn,
  causesOn,
  createProjector,
  cureOf,
  forecastOf,
  matchItems,
  type ExpectedItem,
  type PlannedLine,
} from '.';

/* Money where two things meet: orders and closed months, taxes and part payments, days out of order. Reckoned by hand. */

const on = (text: string) => toDayNumber(text as Day);
const sales = account('sales', 'income');
const fees = account('fees', 'income');
const goods = account('goods', 'costOfSales');
const first = calendar.firstOfYear(2026);
const december = [first - 1].map((p) => calendar.period(p));
const order = (change: Partial<ExpectedItem>): ExpectedItem => ({
  key: 'o1',
  side: 'in',
  kind: 'order',
  account: 'sales',
  dated: on('2026-01-10'),
  expected: on('2026-01-31'),
  open: minor(400),
  counted: true,
  onTop: false,
  ...change,
});

test('an order stands for its month of the plan where closed months stand before it', () => {
  const line: PlannedLine = { ...planned(sales, atOnce(), [1_000, 1_000]), past: [minor(50)] };
  const p = createProjector()(projectionOf([line], { past: december, items: [order({})] }));
  // 600 of January's plan, and the order's 400.
  expect(byMonth(p)).toEqual([1_000, 1_000]);
  const later = order({ dated: on('2026-02-10'), expected: on('2026-02-28') });
  expect(byMonth(createProjector()(projectionOf([line], { past: december, items: [later] })))).toEqual([
    1_000, 1_000,
  ]);
});

test('an order of an account that nobody plans, or of a month after the plan, stands for nothing of it', () => {
  const alone = order({ account: 'fees' });
  const late = order({ key: 'o2', dated: on('2029-01-10'), expected: on('2026-02-10') });
  const p = createProjector()(
    projectionOf([planned(sales, atOnce(), [1_000, 0])], {
      items: [alone, late],
      accounts: [account('bank', 'bank'), account('rec', 'receivable'), sales, fees],
    }),
  );
  expect(byMonth(p, 'sales').reduce((a, b) => a + b, 0)).toBe(-1_400);
  expect(byMonth(p)).toEqual([1_400, 400]);
});

const onPayment = (id: string): TaxScheme => ({
  id,
  name: id,
  payable: `${id}owed`,
  owed: 'collected',
  on: 'payment',
  every: 1,
  ends: 12,
  due: { of: 'months', months: 1, day: 20 },
  exceptions: [],
});

test('of a receivable of which half is paid, half of its tax falls due when the rest comes', () => {
  // Invoiced on 31 December: 1,000 and 190 of tax, due on 30 January. 595 of it have come in December.
  const made = planned(sales, onAccount([['100', { days: 30 }]]), [0, 0, 0]);
  const line: PlannedLine = {
    ...made,
    past: [minor(1_000_00)],
    terms: { ...made.terms, tax: { scheme: 't1', rate: percent('19') } },
  };
  const p = createProjector()(
    projectionOf([line], {
      past: december,
      accounts: [
        account('bank', 'bank'),
        account('rec', 'receivable'),
        account('t1owed', 'taxPayable'),
        sales,
      ],
      opening: new Map([
        ['rec', 595_00],
        ['t1owed', -190_00],
      ]),
      taxes: [onPayment('t1')],
    }),
  );
  const moves = written(p)
    .filter((x) => x.account === 'bank')
    .map((x) => [dayText(x.day), x.amount]);
  // December's half of the tax with December's return, the other with January's.
  expect(moves).toEqual([
    ['2026-01-30', 595_00],
    ['2026-01-20', -95_00],
    ['2026-02-20', -95_00],
  ]);
});

test('the tax in open items falls due by its own scheme, and by no other', () => {
  const item = (key: string, scheme: string): ExpectedItem => ({
    ...order({ key, kind: 'invoice', account: 'rec', dated: on('2025-12-10'), expected: on('2026-01-15') }),
    open: minor(119_00),
    tax: { scheme, owes: 19_00 },
  });
  const p = createProjector()(
    projectionOf([planned(sales, atOnce(), [0, 0, 0])], {
      accounts: ['t1owed', 't2owed']
        .map((id) => account(id, 'taxPayable'))
        .concat(account('bank', 'bank'), account('rec', 'receivable'), sales),
      opening: new Map([
        ['rec', 238_00],
        ['t1owed', -19_00],
        ['t2owed', -30_00],
      ]),
      items: [item('i1', 't1'), item('i2', 't2')],
      taxes: [onPayment('t1'), onPayment('t2')],
    }),
  );
  const paid = (tax: string) =>
    written(p)
      .filter((x) => x.account === tax && x.amount > 0)
      .map((x) => [dayText(x.day), x.amount]);
  // All that stands on the first is undue until the item is paid; of the second 11 stood for December.
  expect(paid('t1owed')).toEqual([['2026-02-20', 19_00]]);
  expect(paid('t2owed')).toEqual([
    ['2026-01-20', 11_00],
    ['2026-02-20', 19_00],
  ]);
});

test('what moves an account in a range of days comes to what it moved, cause by cause', () => {
  const p = createProjector()(
    projectionOf(
      [
        planned(sales, onAccount([['90', { days: 10 }]]), [1_000, 500]),
        planned(goods, atOnce({ of: 'monthDay', day: 5 }), [300, 200]),
      ],
      {},
    ),
  );
  const sum = (of: string, borne = (a: string) => a) =>
    causesOn(p, of, { from: NEW_YEAR + 1, to: on('2026-02-28') }, borne).reduce((t, c) => t + c.amount, 0);
  expect(sum('sales')).toBe(-1_500);
  expect(sum('goods')).toBe(500);
  // January's 1,000 less what was paid of it and what is never paid, and all of February's.
  expect(sum('rec')).toBe(500);
  expect(sum('nothing')).toBe(0);
});

test('an invoice with its tax is told by the money, and a tax alone as a tax', () => {
  const made = planned(sales, onAccount([['100', { days: 10 }]]), [1_000]);
  const line = { ...made, terms: { ...made.terms, tax: { scheme: 't1', rate: percent('20') } } };
  const p = createProjector()(projectionOf([line], { taxes: [{ ...onPayment('t1'), on: 'invoice' }] }));
  const causes = causesIn(p, { from: NEW_YEAR + 1, to: on('2026-12-31') }, () => true);
  expect(causes.map((c) => [c.amount, c.what])).toEqual([
    [1_200, 'payment'],
    [-200, 'tax'],
  ]);
});

test('without a floor, what is missing is what the bank is overdrawn by', () => {
  const p = createProjector()(
    projectionOf([planned(goods, atOnce({ of: 'monthDay', day: 10 }), [700])], {
      opening: new Map([['bank', 500]]),
    }),
  );
  const f = forecastOf(p, { without: [], floor: null, creditLine: null, drawn: 0 });
  expect(cureOf(f, null)).toMatchObject({ amount: 200, from: on('2026-01-10') });
});

test('entries are matched in the order of their days, on one day invoices before payments', () => {
  const accounts = [account('rec', 'receivable'), account('sales', 'income')];
  const view = { merged: new Map(), keep: null };
  // The same party each third row: rows 0 and 3, written with the payment first.
  const pay = (day: string, amount: number): [string, string, number] => [day, 'rec', amount];
  const fill: [string, string, number] = ['2025-01-01', 'sales', 0];
  const block = blockOf(accounts, [pay('2025-03-10', -100), fill, fill, pay('2025-02-01', 100)]);
  expect(balancesOf([block], calendar).entries).toBe(4);
  const { settled, items } = matchItems([block], view, 'rec', 1, on('2025-12-31'));
  expect(items).toEqual([]);
  expect(settled.map((s) => s.days)).toEqual([37]);
  const sameDay = blockOf(accounts, [pay('2025-03-10', -100), fill, fill, pay('2025-03-10', 100)]);
  expect(matchItems([sameDay], view, 'rec', 1, on('2025-12-31')).settled.map((s) => s.days)).toEqual([0]);
});

test('what settles a balance of several lines is of those that have something to settle', () => {
  const rule = { kind: 'daysOutstanding' as const, days: 0, over: 1 as const, through: 'rec' };
  const p = createProjector()(projectionOf([planned(sales, rule, [1_000]), planned(fees, rule, [0])], {}));
  const money = (key: string) =>
    written(p)
      .filter((x) => x.key === key && x.account === 'bank')
      .reduce((t, x) => t + x.amount, 0);
  const keys = [...p.parts.keys()].filter((k) => k.startsWith('line'));
  expect(keys.map(money).filter((a) => a !== 0)).toEqual([1_000]);
});

test('ten years spread over every working day come to their amounts', () => {
  const months = 120;
  const amounts = Array.from({ length: months }, (_, i) => 1_000 + i);
  const spread = planned(sales, atOnce({ of: 'spread' }), amounts);
  const line = { ...spread, terms: { ...spread.terms, tax: { scheme: 't1', rate: percent('19') } } };
  const p = createProjector()(
    projectionOf([line], {
      taxes: [{ ...onPayment('t1'), on: 'invoice', due: { of: 'days', days: 3_000 } }],
    }),
  );
  const taxes = amounts.map((a) => Math.round(a * 0.19)).reduce((a, b) => a + b, 0);
  const sum = (of: string) =>
    written(p)
      .filter((x) => x.account === of && x.key.startsWith('line'))
      .reduce((t, x) => t + x.amount, 0);
  expect(sum('sales')).toBe(-amounts.reduce((a, b) => a + b, 0));
  expect(sum('bank')).toBe(-sum('sales') + taxes);
});

import { minor } from '@/core/money';
import { createReckoner, leavesOut, pricesUntouched, remindersFor, withoutLump } from '.';
import { account, budgetOf, factsWith, lastYear, line, of, pct, planOf } from '../test/build';

const accounts = [
  account('s', 'income', 'Sales'),
  account('i', 'expense', 'Insurance'),
  account('r', 'expense', 'Repairs'),
  account('w', 'expense', 'Wages and salaries'),
  account('t', 'expense', 'Property tax'),
  account('l', 'loan', 'Van loan'),
  account('d', 'equity', 'Owner’s draw'),
  { ...account('x', 'expense', 'Old licence'), active: false },
];
const steady = (v: number) => new Array<number>(12).fill(v);
const facts = factsWith(accounts, {
  s: steady(1000),
  i: [null, null, 600, null, null, null, null, null, null, null, null, null],
  r: [...steady(100).slice(0, 11), 900],
  w: steady(500),
});
const reminders = remindersFor(facts, accounts);
const about = (code: string) => reminders.find((r) => r.of === code)?.accounts.map((a) => a.account);

test('each reminder names the accounts that it is about; accounts that are no longer active are left alone', () => {
  expect(reminders.map((r) => r.of)).toEqual([
    'oneOffs',
    'renewals',
    'prices',
    'hires',
    'loans',
    'taxes',
    'draws',
  ]);
  expect([
    about('renewals'),
    about('hires'),
    about('loans'),
    about('taxes'),
    about('draws'),
    about('prices'),
  ]).toEqual([['i'], ['w'], ['l'], ['t'], ['d'], ['s']]);
});

test('the lumps of the ledger are filled in, with what of them is beyond the usual month', () => {
  const insurance = reminders.find((r) => r.of === 'renewals')!.accounts[0]!.lumps;
  expect(insurance).toMatchObject([{ value: 600, beyond: null, again: { number: 3, year: 2026 } }]);
  const repairs = reminders.find((r) => r.of === 'oneOffs')!.accounts;
  expect(repairs.map((a) => a.account)).toEqual(['r']);
  expect(repairs[0]!.lumps).toMatchObject([{ value: 900, beyond: 800, kind: 'lump' }]);
});

test('a lump left out is left out of its month alone', () => {
  const lump = reminders.find((r) => r.of === 'oneOffs')!.accounts[0]!.lumps[0]!;
  const before = line('r', lastYear({ uplift: pct('10') }));
  const after = { ...before, method: withoutLump(before, lump)! };
  expect([leavesOut(before, lump), leavesOut(after, lump)]).toEqual([false, true]);
  const amounts = createReckoner()(planOf(after), facts).lines.get(of('r'))!.amounts;
  expect(amounts).toEqual(steady(110).map(minor));
  expect(withoutLump(line('r', { kind: 'byMonth', amounts: {} }), lump)).toBeNull();
});

test('prices are untouched until one line of income is changed', () => {
  const isIncome = (id: string) => id === 's';
  expect(
    pricesUntouched(budgetOf([line('s', lastYear()), line('r', lastYear({ uplift: pct('5') }))]), isIncome),
  ).toBe(true);
  expect(pricesUntouched(budgetOf([line('s', lastYear({ uplift: pct('5') }))]), isIncome)).toBe(false);
});

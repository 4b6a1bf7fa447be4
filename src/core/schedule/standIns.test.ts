import { account } from '@/core/test/build';
import { accountFor, isStandIn, STAND_INS } from '.';

const book = [
  account('private', 'taxPayable', 'Income tax payable'),
  account('other', 'otherLiability', 'Deposits of members'),
  account('vat', 'taxPayable', 'VAT'),
  account('old', 'otherLiability', 'Payroll withholdings, old'),
  account('held', 'otherLiability', 'Wages withheld'),
  account('gainLoss', 'otherExpense', 'Loss on disposal'),
  account('misc', 'otherIncome', 'Sundry income'),
].map((a) => (a.id === 'old' ? { ...a, active: false } : a));

test('an account that nobody named is found by its nature, else by its kind', () => {
  expect(accountFor(book, 'tax')).toBe('vat');
  expect(accountFor(book, 'incomeTax')).toBe('private');
  expect(accountFor(book, 'withheld')).toBe('held');
  expect(accountFor(book, 'gain')).toBe('misc');
  expect(accountFor(book, 'deferred')).toBe('other');
});

test('what neither tells is a stand-in, not the first other liability', () => {
  expect(accountFor(book.slice(0, 3), 'withheld')).toBe(STAND_INS.withheld);
  expect(accountFor(book, 'prepaid')).toBe(STAND_INS.prepaid);
  expect(accountFor(book.slice(0, 1), 'tax')).toBe(STAND_INS.tax);
  expect([isStandIn(accountFor(book, 'badDebt')), isStandIn(accountFor(book, 'interest'))]).toEqual([
    true,
    true,
  ]);
});

test('what someone says of an account goes before its name', () => {
  const said = book.map((a) => (a.id === 'other' ? { ...a, nature: 'withheld' as const } : a));
  expect(accountFor(said, 'withheld')).toBe('other');
});

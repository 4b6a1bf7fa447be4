import type { Adjusts } from '@/core/model';
import { bookWith } from '@/core/test/build';
import { readSize, sizeDraft, sizeText } from './caseWords';

const book = bookWith([]);
const reach = { lines: [{ of: 'income' as const }] };
const percent: Adjusts = { on: 'amounts', reach, way: { as: 'percent' } };
const amount: Adjusts = { on: 'amounts', reach, way: { as: 'amount' } };
const days: Adjusts = { on: 'termsDays', reach };
const months: Adjusts = { on: 'linesMoved', reach };
const gone: Adjusts = { on: 'rowGone', row: 'r1' };
const day: Adjusts = { on: 'rowField', row: 'r1', field: 'from', by: 'value' };
const rate: Adjusts = { on: 'rate', of: 'interest', by: 'value' };
const points: Adjusts = { on: 'rate', of: 'interest', by: 'more' };

test.each<[string, Adjusts, string, number | null, string]>([
  ['a percentage with its sign', percent, '5', 5_000, '+5%'],
  ['one below zero, with a typographic minus', percent, '−8 %', -8_000, '−8%'],
  ['a percentage that ends in a zero', percent, '-20', -20_000, '−20%'],
  ['a hundred of them', percent, '100', 100_000, '+100%'],
  ['a rate of three decimals, which is no change', rate, '4.125', 4_125, '4.125%'],
  ['points', points, '+0.5 points', 500, '+0.5 points'],
  ['an amount', amount, '-1,200', -120_000, '−1,200'],
  ['days', days, '20', 20, '20 days later'],
  ['days the other way', days, '1 day earlier', -1, '1 day earlier'],
  ['months', months, '-2', -2, '2 months earlier'],
  ['yes', gone, 'Yes', 1, 'yes'],
  ['a day', day, '2027-03-01', 20_878, 'Mar 1, 2027'],
  ['nothing', percent, ' ', null, ''],
  ['a dash', percent, '–', null, ''],
  ['off', gone, 'no', null, ''],
])('%s is read as it is typed, and written so that it is read again', (_, what, typed, size, shown) => {
  expect(readSize(what, typed, book)).toEqual({ ok: true, size });
  if (size === null) return;
  expect(sizeText(what, size, book)).toBe(shown);
  expect(readSize(what, sizeDraft(what, size, book), book)).toEqual({ ok: true, size });
});

test.each<[string, Adjusts, string, string]>([
  ['a word', percent, 'much', 'A percentage'],
  ['a percentage beyond reason', percent, '20000', 'It must be from −1,000% to 10,000%'],
  ['days beyond reason', days, '5000', 'It must be from −1,000 to 1,000 days'],
  ['half a month', months, '1.5', 'A whole number of months'],
  ['no day', day, '2027-02-30', 'A day, such as 2027-03-01'],
  ['a percentage for an amount', amount, '5%', 'An amount'],
])('%s is refused, and why', (_, what, typed, why) => {
  expect(readSize(what, typed, book)).toEqual({ ok: false, why });
});

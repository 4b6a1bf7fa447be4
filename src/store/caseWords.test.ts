import type { Adjusts, When } from '@/core/model';
import { bookWith, calendar, periodIds } from '@/core/test/build';
import { movedOn, namesWhatIs, readSize, sizeDraft, sizeText, whenWords } from './caseWords';

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

const ids = periodIds(2026);
const when = (change: Partial<When>): When => ({
  from: ids[0]!,
  until: null,
  every: 1,
  times: null,
  ramp: null,
  ...change,
});

test.each<[string, Partial<When>, string]>([
  ['once', { until: ids[0]! }, 'Jan 2026'],
  ['from a month on', {}, 'from Jan 2026'],
  ['a spell within a year', { until: ids[5]! }, 'Jan – Jun 2026'],
  ['a spell over a year’s end', { until: periodIds(2027)[1]! }, 'Jan 2026 – Feb 2027'],
  ['every quarter, so many times', { every: 3, times: 4 }, 'every 3 months from Jan 2026, 4 times'],
  ['growing into it', { ramp: 6 }, 'from Jan 2026, over 6 months'],
])('when it comes, in words: %s', (_, change, words) => {
  expect(whenWords(calendar, { what: percent, when: when(change) })).toBe(words);
});

test('an adjustment whose months are closed can go on from the first that is open, as long as it was', () => {
  const closed = calendar.firstOfYear(2026) + 2;
  const moved = (change: Partial<When>, what: Adjusts = percent) =>
    movedOn(calendar, { what, when: when(change) }, closed);
  expect(moved({ until: ids[0]! })).toMatchObject({ from: ids[3], until: ids[3] });
  expect(moved({ from: ids[1]!, until: ids[2]! })).toMatchObject({ from: ids[3], until: ids[4] });
  expect(moved({ every: 2, times: 2 })).toMatchObject({ from: ids[3], until: null });
  // One with a month ahead goes on by itself, and what has days of its own has no months.
  expect(moved({ until: ids[3]! })).toBeNull();
  expect(moved({})).toBeNull();
  expect(moved({ until: ids[0]! }, gone)).toBeNull();
});

test('what an adjustment names may have been taken away', () => {
  expect(namesWhatIs(gone, book)).toBe(false);
  expect(namesWhatIs(percent, book)).toBe(true);
});

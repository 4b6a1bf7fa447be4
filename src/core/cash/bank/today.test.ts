import { minor } from '@/core/money';
import { NEW_YEAR, projectionOf } from '@/core/test/cash';
import { CASH_SOURCES } from '@/core/model';
import { WHAT } from '@/core/schedule';
import { AccountTable, PostingBuilder } from '../postings';
import type { Part, Projected } from '../projected';
import { fromToday, type TodayInput } from '..';

/** A bill of 100 that is paid with 10 off, and 7 of a tax beside it: events of three postings and of two. */
function billPaid() {
  const table = new AccountTable();
  const [bank, pay, off, tax] = ['bank', 'pay', 'stock', 'vat'].map((id) => table.of(id)) as [
    number,
    number,
    number,
    number,
  ];
  const out = new PostingBuilder();
  const day = NEW_YEAR + 5;
  const add = (account: number, amount: number) => out.add(day, account, amount, 0, WHAT.item, day);
  add(pay, 10_001);
  add(off, -1_000);
  add(bank, -9_001);
  add(bank, -701);
  add(tax, 701);
  const part: Part = { of: 'item', key: 'item i', source: 'openBills', postings: out.take() };
  const input = projectionOf([]);
  const bySource = Object.fromEntries(
    CASH_SOURCES.map((source) => [source, new Float64Array(31)]),
  ) as Projected['bySource'];
  const projected: Projected = {
    start: NEW_YEAR,
    days: 31,
    table,
    isBank: (place) => place === bank,
    opening: 0,
    bySource,
    moved: [],
    parts: new Map([[part.key, part]]),
    returns: [],
    lostBefore: new Map(),
    untold: new Map(),
    version: 1,
  };
  return { projected, input, places: { bank, pay, off, tax } };
}

test('a part of a payment takes its part of everything that belongs to it, to the cent', () => {
  const { projected, input, places } = billPaid();
  const told: TodayInput = {
    stands: [
      {
        account: 'bank',
        day: NEW_YEAR + 9,
        amount: -3_333,
        by: 'statement',
        covered: [{ from: NEW_YEAR + 1, to: NEW_YEAR + 9 }],
        movements: [
          {
            key: 's 0',
            account: 'bank',
            day: NEW_YEAR + 3,
            amount: minor(-3_333),
            counterparty: '',
            reference: 'B-100',
            memo: '',
            number: '',
            reverses: false,
          },
        ],
        atStart: 0,
        gaps: [],
      },
    ],
    entries: [],
    said: {},
    namesOf: () => ({ number: 'B-100', counterparty: '' }),
    working: (day) => day + 2,
  };
  const [was] = projected.parts.values();
  const today = fromToday(projected, input, told);
  const part = today.projected.parts.get('item i')!;
  const { columns, first, count } = part.postings;
  const on = (day: number, place: number) => {
    let sum = 0;
    for (let i = first; i < first + count; i++)
      if (columns.day[i] === NEW_YEAR + day && columns.account[i] === place) sum += columns.amount[i]!;
    return sum;
  };
  // 3,333 of 9,001 moved on the 3rd: so much of the bill (3,703) and of what was taken off (370).
  expect([on(3, places.bank), on(3, places.pay), on(3, places.off)]).toEqual([-3_333, 3_703, -370]);
  // The rest and the tax fall on the working day after the 10th.
  expect([on(12, places.bank), on(12, places.pay), on(12, places.off), on(12, places.tax)]).toEqual([
    -(9_001 - 3_333) - 701,
    10_001 - 3_703,
    -(1_000 - 370),
    701,
  ]);
  expect([on(5, places.bank), on(5, places.pay)]).toEqual([0, 0]);
  // What was handed in is what it was.
  expect(projected.parts.get('item i')).toBe(was);
  expect([...projected.bySource.openBills]).toEqual(new Array(31).fill(0));
});

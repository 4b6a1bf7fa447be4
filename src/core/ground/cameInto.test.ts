import { minor } from '@/core/money';
import type { Day, PeriodId } from '@/core/calendar';
import { account, blockOf, bookWith, calendar, periodIds, sourceOf } from '@/core/test/build';
import { cameInto, makeGround } from '.';

const [supplies, materials, sales] = [
  account('o', 'expense', 'Office supplies'),
  account('m', 'costOfSales', 'Repair materials'),
  account('s', 'income', 'Sales'),
];
const ids = periodIds(2026);
const first = calendar.firstOfYear(2026);

function ground(to: string, closed = true) {
  const entry = { day: '2026-01-10' as Day, reference: 'r0', counterparty: 'party 0', amount: minor(1840) };
  const block = blockOf([supplies, materials, sales], closed ? [['2026-01-10', 'o', 1840]] : []);
  return makeGround(
    bookWith([supplies, materials, sales], {
      sources: [sourceOf()],
      closedThrough: ids[0]!,
      varianceNotes: {
        [ids[0] as PeriodId]: {
          o: {
            text: '',
            against: null,
            at: '2026-02-01T00:00:00.000Z',
            parts: [{ kind: 'wrongEntry', amount: minor(1840), entries: [entry], to }],
          },
        },
      },
    }),
    new Map([[block.id, block]]),
  );
}

test('an entry that is shown where it belongs is noted there too, from where it came', () => {
  expect(cameInto(ground('m'), materials, first)).toEqual([{ from: 'o', amount: 1840 }]);
  expect(cameInto(ground('m'), supplies, first)).toEqual([]);
  expect(cameInto(ground('m'), materials, first + 1)).toEqual([]);
  // Natural to the account that has it: a cost is less income.
  expect(cameInto(ground('s'), sales, first)).toEqual([{ from: 'o', amount: -1840 }]);
});
test('one that the ledger has no more is noted nowhere', () =>
  expect(cameInto(ground('m', false), materials, first)).toEqual([]));

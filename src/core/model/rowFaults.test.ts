import { day } from '@/core/calendar';
import { minor, percent } from '@/core/money';
import { bookWith, budgetOf, didAll, refusalOf } from '@/core/test/build';
import { assetRow, equityRow, loanRow, SCHEDULE_ACCOUNTS, staffRow, taxRow } from '@/core/test/schedule';
import { applyCommand, faultOfRow, type Command, type RowFault, type ScheduleRow } from '.';

const rate = (text: string) => percent(text);
const sold = (on: string) => ({ day: day(on), price: minor(1), gain: null });

test.each<[RowFault | null, string, ScheduleRow]>([
  ['soldBeforeBought', 'an asset sold the day before', assetRow({ sold: sold('2026-03-14') })],
  [null, 'one sold on the day itself', assetRow({ sold: sold('2026-03-15') })],
  ['residualAboveCost', 'more left than it cost', assetRow({ residual: minor(1_000_001) })],
  [null, 'all of it left', assetRow({ residual: minor(1_000_000) })],
  ['absurdRate', 'declining by nothing', assetRow({ way: { of: 'declining', rate: rate('0') } })],
  ['absurdRate', 'declining by more than all', assetRow({ way: { of: 'declining', rate: rate('101') } })],
  ['absurdRate', 'a negative rate of tax', assetRow({ tax: { scheme: 't', rate: rate('-1') } })],
  [
    'writtenOffAboveCost',
    'more written off than it cost',
    assetRow({ standing: { day: day('2026-04-01'), accumulated: minor(1_000_001), months: 3 } }),
  ],
  [
    'standsBeforeBought',
    'in the ledger before it is bought',
    assetRow({ standing: { day: day('2026-03-14'), accumulated: minor(1), months: 3 } }),
  ],
  ['absurdRate', 'interest of 600 %', loanRow({ rate: rate('600') })],
  [
    'absurdRate',
    'a later rate below nothing',
    loanRow({ rates: [{ from: day('2027-01-01'), rate: rate('-2') }] }),
  ],
  [null, 'a loan without interest', loanRow({ rate: rate('0') })],
  ['paidBeforeDrawn', 'a first payment before the money', loanRow({ first: day('2026-01-30') })],
  [null, 'one on the day of the money', loanRow({ first: day('2026-01-31') })],
  ['graceTooLong', 'interest alone to the end', loanRow({ grace: 60 })],
  [null, 'interest alone to the last but one', loanRow({ grace: 59 })],
  [null, 'interest alone, all at the end', loanRow({ grace: 60, repay: { of: 'atEnd' } })],
  [
    'endsBeforeBegins',
    'leaving before coming',
    staffRow({ from: day('2026-05-02'), until: day('2026-05-01') }),
  ],
  [
    'absurdRate',
    'on-costs below nothing',
    staffRow({ oncosts: [{ name: 'x', percent: rate('-1'), cap: null, year: 'fiscal' }] }),
  ],
  [
    null,
    'a raise of 3 %',
    staffRow({ raises: [{ from: day('2026-06-01'), change: { of: 'percent', percent: rate('3') } }] }),
  ],
  ['absurdRate', 'an income tax of 250 %', taxRow({ rate: rate('250') })],
  [
    'endsBeforeBegins',
    'drawings that end before the first',
    equityRow({ repeat: { every: 1, unit: 'months', until: day('2026-02-09'), times: null } }),
  ],
])('%s: %s', (fault, _, row) => expect(faultOfRow(row)).toBe(fault));

test('what none can be is refused by name where it is typed; what was wrong before may be mended field by field', () => {
  const put = (row: ScheduleRow): Command => ({
    type: 'putScheduleRows',
    budget: 'b1',
    rows: [row],
    lines: [],
  });
  const book = bookWith(SCHEDULE_ACCOUNTS, { budgets: [budgetOf([])] });
  const wrong = assetRow({ sold: sold('2026-03-01') });
  const refused = applyCommand(book, put(wrong));
  expect(!refused.ok && refused.refusal).toEqual({
    code: 'absurdRow',
    fault: { path: 'Launch', message: 'soldBeforeBought' },
  });
  const before = { ...book, budgets: [budgetOf([], 'b1', { schedules: [wrong] })] };
  expect(didAll(before, put({ ...wrong, cost: minor(5_000_000) })).budgets[0]!.schedules).toHaveLength(1);
  expect(refusalOf(before, put({ ...wrong, sold: sold('2026-04-01'), residual: minor(9_000_000) }))).toBe(
    'absurdRow',
  );
});

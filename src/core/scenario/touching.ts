import {
  isProfitAndLoss,
  linesOfRow,
  segmentsOfRow,
  type Account,
  type AccountId,
  type Adjustment,
  type Adjusts,
  type Book,
  type Budget,
  type ScheduleRow,
  type SegmentId,
} from '@/core/model';
import { reaches } from './terms';

/** The rows that an adjustment changes, or adds. */
function rowsOf(what: Adjusts, rows: readonly ScheduleRow[]): readonly ScheduleRow[] {
  switch (what.on) {
    case 'rowMoved':
    case 'rowGone':
    case 'rowField':
      return rows.filter((r) => r.id === what.row);
    case 'rowAdded':
      return [what.row];
    case 'pay':
      return rows.filter(
        (r) => r.kind === 'staff' && (what.accounts.length === 0 || what.accounts.includes(r.account)),
      );
    case 'oncosts':
      return rows.filter((r) => r.kind === 'staff');
    case 'rate':
      return what.of === 'incomeTax'
        ? rows.filter((r) => r.kind === 'incomeTax')
        : what.of === 'interest'
          ? rows.filter((r) => r.kind === 'loan')
          : [];
    default:
      return [];
  }
}

/** The adjustments that cases try over a budget: on, of a size in some case, and not taken into it already. */
export const triedOver = (
  { adjustments, cases }: Pick<Book, 'adjustments' | 'cases'>,
  { applied }: Pick<Budget, 'applied'>,
): readonly Adjustment[] =>
  adjustments.filter(
    (a) =>
      !a.off &&
      !applied.some((t) => t.adjustment.id === a.id) &&
      cases.some((c) => Object.hasOwn(c.sizes, a.id)),
  );

/** The adjustments that name each row of schedules, by its id. */
export const touchingRows = (
  adjustments: readonly Adjustment[],
  rows: readonly ScheduleRow[],
): ReadonlyMap<string, readonly Adjustment[]> =>
  new Map(
    rows.flatMap((row) => {
      const own = adjustments.filter(({ what }) => rowsOf(what, rows).includes(row));
      return own.length === 0 ? [] : [[row.id, own] as const];
    }),
  );

/**
 * The adjustments that name each line of a budget, by account: themselves, or by a row of a schedule that makes it. `of`: in one
 * segment, or in any. What only follows from such a line is not among them, nor is what changes money alone.
 */
export function touching(
  adjustments: readonly Adjustment[],
  { schedules }: Pick<Budget, 'schedules'>,
  accounts: readonly Account[],
  of: SegmentId | 'any',
): ReadonlyMap<AccountId, readonly Adjustment[]> {
  const out = new Map<AccountId, Adjustment[]>();
  const put = (account: AccountId, adjustment: Adjustment): void => {
    const there = out.get(account);
    if (!there) out.set(account, [adjustment]);
    else if (!there.includes(adjustment)) there.push(adjustment);
  };
  for (const adjustment of adjustments) {
    const { what } = adjustment;
    if ('reach' in what) {
      for (const a of accounts)
        if (isProfitAndLoss(a.kind) && reaches(what.reach, a, of)) put(a.id, adjustment);
      continue;
    }
    for (const row of rowsOf(what, schedules))
      if (of === 'any' || segmentsOfRow(row).includes(of))
        for (const account of linesOfRow(row)) put(account, adjustment);
  }
  return out;
}

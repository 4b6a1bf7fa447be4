import { minor, type Minor } from '@/core/money';
import { fromDayNumber, type Day, type FiscalCalendar, type PeriodIndex } from '@/core/calendar';
import { isProfitAndLoss, naturalSign, profitSign, type Source } from '@/core/model';
import { totalsOf } from '@/core/ledger';
import type { Draft } from './draft';
import type { AccountChoice } from './match';
import { toDebitPositive } from './readMonths';

export type ProofMonth = {
  readonly period: PeriodIndex;
  readonly entries: number;
  readonly debit: Minor;
  readonly credit: Minor;
  /** Income less costs, positive for a profit. */
  readonly profit: Minor;
};

export type ControlResult = {
  readonly row: number;
  readonly label: string;
  readonly mismatches: readonly { readonly day: Day | null; readonly theirs: Minor; readonly ours: Minor }[];
};

/** Evidence that what arrived is what was sent. */
export type Proof = {
  readonly months: readonly ProofMonth[];
  readonly debit: Minor;
  readonly credit: Minor;
  readonly controls: readonly ControlResult[];
  readonly controlsTied: number;
  readonly ties: boolean;
  /** Sources of the book that hold the same file, or entries of the same days and accounts. */
  readonly same: Source | null;
  readonly overlapping: readonly Source[];
  readonly firstDay: Day | null;
  readonly lastDay: Day | null;
};

/** Proves a draft under the person's choice of kinds, against the file's own totals and against the book. */
export function proofOf(
  draft: Draft,
  choices: readonly AccountChoice[],
  calendar: FiscalCalendar,
  fingerprint: string,
  sheet: string | null,
  sources: readonly Source[],
): Proof {
  const { block } = draft;
  const totals = totalsOf(block);
  const months = new Map<PeriodIndex, { entries: number; debit: number; credit: number; profit: number }>();
  const turn = choices.map((c) => toDebitPositive(draft.sign, naturalSign(c.kind)));
  const counts = choices.map((c) => isProfitAndLoss(c.kind));
  const periodOfDay = new Map<number, PeriodIndex>();
  let debit = 0;
  let credit = 0;
  for (let i = 0; i < block.count; i++) {
    const day = block.day[i]!;
    let period = periodOfDay.get(day);
    if (period === undefined) periodOfDay.set(day, (period = calendar.indexOfDay(day)));
    let m = months.get(period);
    if (!m) months.set(period, (m = { entries: 0, debit: 0, credit: 0, profit: 0 }));
    const account = block.account[i]!;
    const amount = block.amount[i]! * turn[account]!;
    m.entries++;
    if (amount > 0) {
      m.debit += amount;
      debit += amount;
    } else {
      m.credit -= amount;
      credit -= amount;
    }
    if (counts[account]) m.profit -= amount;
  }
  const controls = draft.controls.map((c) => checkControl(draft, choices, c));
  const controlsTied = controls.filter((c) => c.mismatches.length === 0).length;
  const firstDay = (totals?.firstDay ?? null) as Day | null;
  const lastDay = (totals?.lastDay ?? null) as Day | null;
  const same = sources.find((s) => s.fingerprint === fingerprint && s.sheet === sheet) ?? null;
  return {
    months: [...months]
      .sort(([a], [b]) => a - b)
      .map(([period, m]) => ({
        period,
        entries: m.entries,
        debit: minor(m.debit),
        credit: minor(m.credit),
        profit: minor(m.profit),
      })),
    debit: minor(debit),
    credit: minor(credit),
    controls,
    controlsTied,
    ties:
      draft.issueCount === 0 &&
      draft.balance !== 'unbalanced' &&
      controlsTied === controls.length &&
      block.count > 0,
    same,
    overlapping:
      firstDay && lastDay
        ? sources.filter((s) => s !== same && s.firstDay <= lastDay && s.lastDay >= firstDay)
        : [],
    firstDay,
    lastDay,
  };
}

function checkControl(
  draft: Draft,
  choices: readonly AccountChoice[],
  control: Draft['controls'][number],
): ControlResult {
  const { block } = draft;
  const over = new Set(control.over);
  const ours = new Map<number | null, number>([[null, 0]]);
  for (let i = 0; i < block.count; i++) {
    const account = block.account[i]!;
    if (!over.has(account)) continue;
    // A file that signs by profit or by side nets by plain addition; natural signs take costs off.
    const sign =
      control.mode === 'net' && draft.sign === 'natural' && profitSign(choices[account]!.kind) < 0 ? -1 : 1;
    const amount = sign * block.amount[i]!;
    ours.set(block.day[i]!, (ours.get(block.day[i]!) ?? 0) + amount);
    ours.set(null, ours.get(null)! + amount);
  }
  const mismatches = control.theirs.flatMap(({ day, value }) => {
    const mine = minor(ours.get(day) ?? 0);
    return mine === value
      ? []
      : [{ day: day === null ? null : fromDayNumber(day), theirs: value, ours: mine }];
  });
  return { row: control.row, label: control.label, mismatches };
}
